import type { ScaleLinear } from 'd3-scale'
import type { Ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { type Drag, dateNear, lastingWords, lengthTo } from './paceDrag'

type At = { section: number; place: number }

export interface Emit {
  (name: 'look' | 'take', at: At): void
  (name: 'drag', drag: Drag | null): void
  (name: 'drop', drag: Drag): void
}

interface Chart {
  pace: Schemas['PaceAnswer']
  sections: Schemas['PaceSection'][]
  view: { from: number; to: number }
  at: At | null
  canChange: boolean
  dragged: Drag | null
}

/** Where a place in time and in the course is drawn. */
interface Drawn {
  x: (at: number) => number
  y: (up: number) => number
  time: Readonly<Ref<ScaleLinear<number, number>>>
}

/** What the pointer looks at, takes, and drags by one of its ends. */
export function usePaceGrip(
  props: Chart,
  emit: Emit,
  frame: Readonly<Ref<HTMLElement | null>>,
  hovered: Ref<boolean>,
  { x, y, time }: Drawn,
) {
  /** The lesson whose stretch lies nearest to the pointer. */
  function nearest(event: MouseEvent): { section: number; place: number } | null {
    const box = frame.value!.getBoundingClientRect()
    const [px, py] = [event.clientX - box.left, event.clientY - box.top]
    let best: { section: number; place: number; off: number } | null = null
    for (const section of props.sections)
      for (const run of section.lessons) {
        if (run.from === null || run.to === null) continue
        const [x1, y1, x2, y2] = [x(run.from), y(run.place), x(run.to), y(run.place + 1)]
        const length = (x2 - x1) ** 2 + (y2 - y1) ** 2
        const part = length ? Math.min(1, Math.max(0, ((px - x1) * (x2 - x1) + (py - y1) * (y2 - y1)) / length)) : 0
        const off = Math.hypot(px - x1 - part * (x2 - x1), py - y1 - part * (y2 - y1))
        if (off < (best?.off ?? 18)) best = { section: section.id, place: run.place, off }
      }
    return best && { section: best.section, place: best.place }
  }

  function look(event: MouseEvent): void {
    const at = nearest(event)
    hovered.value = at !== null
    if (at && (at.section !== props.at?.section || at.place !== props.at.place)) emit('look', at)
  }

  /** A lesson of which an end lies under the pointer: by its beginning it is fixed to a date, by its end stretched. */
  function endUnder(event: PointerEvent): { section: number; place: number; field: 'pin' | 'length' } | null {
    const at = nearest(event)
    const run = at && props.sections.find((one) => one.id === at.section)?.lessons.find((one) => one.place === at.place)
    if (!run || run.from === null || run.to === null || run.state === 'taught') return null
    const box = frame.value!.getBoundingClientRect()
    const off = (x1: number, y1: number) => Math.hypot(event.clientX - box.left - x1, event.clientY - box.top - y1)
    const [start, end] = [off(x(run.from), y(run.place)), off(x(run.to), y(run.place + 1))]
    if (Math.min(start, end) > 12) return null
    return { ...at, field: end < start ? 'length' : 'pin' }
  }

  /** What is being dragged; it becomes a drag once the pointer has moved. */
  let grip: { section: number; place: number; field: 'pin' | 'length'; x: number; left: number } | null = null
  /** A drag is followed by a click, which is none. */
  let wasDrag = false

  function down(event: PointerEvent): void {
    wasDrag = false
    const end = props.canChange && event.button === 0 ? endUnder(event) : null
    if (!end) return
    grip = { ...end, x: event.clientX, left: frame.value!.getBoundingClientRect().left }
    frame.value!.setPointerCapture(event.pointerId)
  }

  function move(event: PointerEvent): void {
    if (!grip) return look(event)
    if (!props.dragged && Math.abs(event.clientX - grip.x) < 4) return
    const { section: id, place, field, left } = grip
    const section = props.sections.find((one) => one.id === id)!
    const run = section.lessons.find((one) => one.place === place)!
    const at = time.value.invert(event.clientX - left)
    wasDrag = true
    if (field === 'pin') {
      const near = dateNear(section, at)
      if (near) emit('drag', { section: id, place, shape: { field, value: near.date }, at: near.at, words: near.words })
    } else {
      const { length, at: end } = lengthTo(section, run, at)
      emit('drag', {
        section: id,
        place,
        shape: { field, value: length },
        at: end,
        words: lastingWords(length, props.pace.unit),
      })
    }
  }

  function up(): void {
    grip = null
    if (props.dragged) emit('drop', props.dragged)
  }

  function cancel(): void {
    grip = null
    emit('drag', null)
  }

  function take(event: MouseEvent): void {
    if (wasDrag) return
    const at = nearest(event)
    if (at) emit('take', at)
  }

  return { down, move, up, cancel, take }
}
