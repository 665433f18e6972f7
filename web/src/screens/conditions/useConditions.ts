import { type Ref, computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import { arrowsOf, causesOf, shownOf, waitsOf, wayOf } from './graph'
import { drawn } from './layout'

const HEIGHT = 66
const MORE = 13

/** What is looked at of a course's conditions, and what comes of it. What is chosen stands in the address. */
export function useConditions(props: { edition: number }, room: Ref<number>) {
  const route = useRoute()
  const router = useRouter()
  const viewpoint = useViewpoint()
  const answer = useAnswer(() => questions.conditions(props.edition, viewpoint.query.value))
  const all = computed(() => answer.data.value ?? null)

  const unit = ref<string | null>(null)
  const folded = ref(false)
  const asList = ref(false)
  const beside = ref(false)
  const off = ref(new Set<number>())
  const student = ref<number | null>(null)

  const sections = computed(() => (all.value?.sections ?? []).filter((one) => !off.value.has(one.section)))
  const inView = computed(() => new Set(sections.value.map((one) => one.section)))
  const toggle = (section: number) => {
    const next = new Set(off.value)
    if (!next.delete(section)) next.add(section)
    // One at least is looked at.
    if (next.size < (all.value?.sections.length ?? 0)) off.value = next
  }

  const units = computed(() => [...new Set((all.value?.places ?? []).map((place) => place.unit))])
  const shown = computed(() => (all.value ? shownOf(all.value, { unit: unit.value, folded: folded.value }) : []))
  const arrows = computed(() => (all.value ? arrowsOf(all.value, shown.value) : []))
  const picture = computed(() => {
    const height = HEIGHT + (beside.value ? MORE * Math.max(0, sections.value.length - 1) : 0)
    return drawn({ places: shown.value.map((one) => ({ key: one.key, height })), arrows: arrows.value }, room.value)
  })

  const key = computed(() => (typeof route.query.place === 'string' ? route.query.place : null))
  const chosen = computed(() => shown.value.find((one) => one.key === key.value) ?? null)
  const choose = (wanted: string | null) =>
    void router.replace({ query: { ...route.query, place: wanted ?? undefined } })

  /** What stands out: one student's way, or what leads to the place that is looked at; null: everything alike. */
  const lit = computed(() => {
    if (!all.value) return null
    if (student.value !== null) {
      const way = wayOf(all.value, student.value)
      return new Set(shown.value.filter((one) => one.places.some((place) => way.has(place.key))).map((one) => one.key))
    }
    return chosen.value ? causesOf(arrows.value, chosen.value.key) : null
  })
  const waits = computed(() => (all.value ? waitsOf(all.value, inView.value) : []))
  const faultsOf = (keys: readonly string[]) =>
    (all.value?.faults ?? []).filter((fault) => fault.places[0] !== undefined && keys.includes(fault.places[0]))

  const facts = computed(() => {
    const places = all.value?.places ?? []
    const conditions = places.filter((place) => place.condition !== null)
    const faults = all.value?.faults.length ?? 0
    const waiting = new Set(waits.value.flatMap((one) => one.students.map((waits) => waits.student))).size
    return [
      `${counted(conditions.length, 'condition')} in ${counted(new Set(conditions.map((one) => one.unit)).size, 'unit')}`,
      faults === 0 ? 'nothing to check' : `${faults} to check`,
      waiting === 0
        ? 'nobody waits for feedback'
        : `${counted(waiting, 'student')} ${waiting === 1 ? 'waits' : 'wait'} for feedback`,
    ]
  })

  /** The next place that way; without one chosen, the first. */
  function go(way: 'left' | 'right' | 'up' | 'down'): string | null {
    const { places } = picture.value
    const here = places.find((one) => one.key === key.value)
    if (!here) return places[0]?.key ?? null
    if (way === 'up' || way === 'down') {
      const column = places.filter((one) => one.column === here.column).sort((a, b) => a.y - b.y)
      return column[column.indexOf(here) + (way === 'up' ? -1 : 1)]?.key ?? null
    }
    const linked = arrows.value
      .filter((one) => (way === 'left' ? one.to : one.from) === here.key)
      .map((one) => (way === 'left' ? one.from : one.to))
    const near = (of: typeof places) => of.toSorted((a, b) => Math.abs(a.y - here.y) - Math.abs(b.y - here.y))[0]?.key
    const beyond = places.filter((one) => one.column === here.column + (way === 'left' ? -1 : 1))
    return near(places.filter((one) => linked.includes(one.key))) ?? near(beyond) ?? null
  }

  return {
    answer,
    all,
    unit,
    units,
    folded,
    asList,
    beside,
    off,
    toggle,
    student,
    sections,
    inView,
    shown,
    picture,
    chosen,
    choose,
    lit,
    waits,
    faultsOf,
    facts,
    go,
  }
}
