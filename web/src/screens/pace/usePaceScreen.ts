import { computed, ref, toRef } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useScreenKeys } from '../../foundation/useKeys'
import { useLevels } from '../../foundation/levels'
import { useReach } from '../../foundation/commands/useReach'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import { type Drag, type Shape, differenceOf } from './paceDrag'
import { windowOf } from './paceLines'
import { readoutOf } from './paceWords'

type At = { section: number; place: number }
export type Zoom = 'term' | 'month' | 'week'

/** What is shown of everybody's pace, which lesson is looked at, taken or dragged, and what that would do. */
export function usePaceScreen(props: { edition: number }) {
  const levels = useLevels()
  const viewpoint = useViewpoint()
  const read = useAnswer(() => questions.pace(props.edition, viewpoint.query.value))
  /** Without the sections that have ended. */
  const pace = {
    ...read,
    data: computed(
      () => read.data.value && { ...read.data.value, sections: read.data.value.sections.filter((one) => !one.ended) },
    ),
  }
  const ribbon = useAnswer(() => questions.ribbon(props.edition, viewpoint.query.value))
  const off = ref<number[]>([])
  const zoom = ref<Zoom>('term')
  const asTable = ref(false)
  /** Held against the edition before. */
  const withLast = ref(true)
  const looked = ref<At | null>(null)
  const taken = ref<At | null>(null)
  /** What is dragged just now; and what was, until it is done or left. */
  const dragged = ref<Drag | null>(null)
  const shaping = ref<(At & { shape: Shape }) | null>(null)
  const sections = computed(() =>
    (pace.data.value?.sections ?? []).filter((section) => !off.value.includes(section.id)),
  )
  const view = computed(() =>
    ribbon.data.value ? windowOf(zoom.value, ribbon.data.value.days, ribbon.data.value.momentAt) : { from: 0, to: 1 },
  )
  const sectionOf = (id?: number) => pace.data.value?.sections.find((section) => section.id === id)
  const runOf = (at: At) => sectionOf(at.section)?.lessons.find((one) => one.place === at.place)
  const differ = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
  const dragRequest = computed(() => {
    const drag = dragged.value
    const section = sectionOf(drag?.section)
    const run = drag && runOf(drag)
    return section && run ? differenceOf(section, run, drag.shape) : null
  })
  const dragReach = useReach(dragRequest, differ.preview)
  const takenSection = computed(() => pace.data.value?.sections.find((section) => section.id === taken.value?.section))
  /** What the lesson looked at is, exactly. */
  const readout = computed(() => {
    if (dragged.value && pace.data.value) {
      const title = pace.data.value.lessons[dragged.value.place]?.title
      return `${sectionOf(dragged.value.section)?.name}: ${title} ${dragged.value.words}. ${dragReach.value}`
    }
    const section = pace.data.value?.sections.find((one) => one.id === looked.value?.section)
    const run = section?.lessons.find((one) => one.place === looked.value?.place)
    const lesson = pace.data.value?.lessons[looked.value?.place ?? -1]
    if (!section || !run || !lesson)
      return !pace.data.value?.canChange
        ? asTable.value
          ? ''
          : `Point at a line to read its ${levels.value.lesson.one} and class.`
        : asTable.value
          ? `Click a date to note what the ${levels.value.lesson.one} took.`
          : `Point at a line to read its ${levels.value.lesson.one} and class; click it to note what it took; drag an end to fix its date or stretch it.`
    return readoutOf(section, run, lesson, withLast.value)
  })
  const facts = computed(() => {
    const all = pace.data.value?.sections ?? []
    const short = all.filter((section) => section.lacking > 0).length
    return [
      `${levels.value.lesson.counted(pace.data.value?.lessons.length ?? 0)}, ${counted(all.filter((one) => !one.pretend).length, 'section')}`,
      short ? `${counted(short, 'section')} ${short === 1 ? 'does' : 'do'} not fit the term` : 'all fit the term',
    ]
  })

  function toggle(section: number): void {
    off.value = off.value.includes(section) ? off.value.filter((one) => one !== section) : [...off.value, section]
  }

  function take(at: At): void {
    shaping.value = null
    taken.value = looked.value = at
  }

  /** Let go of: what it would do is looked at once more before it is done. */
  function drop(drag: Drag): void {
    dragged.value = null
    looked.value = { section: drag.section, place: drag.place }
    shaping.value = { ...looked.value, shape: drag.shape }
  }

  function shape(field: 'pin' | 'length'): void {
    if (!taken.value) return
    const run = runOf(taken.value)
    const value = run?.starts?.local.slice(0, 10) ?? null
    shaping.value = {
      ...taken.value,
      shape: field === 'pin' ? { field, value } : { field, value: run?.length ?? null },
    }
  }

  useScreenKeys([
    { key: 'Escape', words: 'close what was taken, unchanged', run: () => (taken.value = shaping.value = null) },
    { key: 't', words: 'lines or table', run: () => (asTable.value = !asTable.value) },
    { key: 'l', words: 'with or without last time', run: () => (withLast.value = !withLast.value) },
  ])

  return {
    pace,
    ribbon,
    off,
    zoom,
    asTable,
    withLast,
    looked,
    taken,
    takenSection,
    dragged,
    shaping,
    sections,
    view,
    sectionOf,
    readout,
    facts,
    toggle,
    take,
    drop,
    shape,
  }
}
