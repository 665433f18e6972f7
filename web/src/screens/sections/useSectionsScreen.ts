import { computed, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useScreenKeys } from '../../foundation/useKeys'
import { useSection } from '../../foundation/useSection'
import { counted } from '../../foundation/words'
import type { Wanted } from './classes'
import type { Place } from './here'
import { useSections } from './useSections'

export const lists = ['classes', 'lessons', 'students', 'groups'] as const

/** Which section is in view, what is listed of it, and what is being changed in the panel below. */
export function useSectionsScreen(props: { edition: number }) {
  const route = useRoute()
  const router = useRouter()
  const { pace, sections, again, problem } = useSections(props)
  const { section: chosen, choose: chooseSection } = useSection()
  const open = ref<{ wanted: Wanted } | { place: Place } | 'timetable' | 'stop' | 'pretend' | null>(null)
  /** What is listed, and the class in view, stand in the address. */
  const shows = computed(() => lists.find((list) => list === route.query.shows) ?? 'classes')
  const inView = computed({
    get: () => Number(route.query.class) || null,
    set: (ordinal) => void router.replace({ query: { ...route.query, class: ordinal ?? undefined } }),
  })
  watch(
    () => route.query.shows,
    (what) => what === 'timetable' && (open.value = 'timetable'),
    { immediate: true },
  )
  const cards = computed(() => sections.data.value?.sections ?? [])
  const card = computed(() => cards.value.find((one) => one.id === chosen.value) ?? cards.value[0])
  const line = computed(() => pace.data.value?.sections.find((one) => one.id === card.value?.id))
  const canChange = computed(() => sections.data.value?.canChange ?? false)
  const being = computed(() => (open.value && typeof open.value === 'object' ? open.value : null))
  const place = computed(() => (being.value && 'place' in being.value ? being.value.place : null))
  const wanted = computed(() => (being.value && 'wanted' in being.value ? being.value.wanted : null))
  const facts = computed(() => [
    counted(cards.value.filter((one) => !one.pretend).length, 'section'),
    counted(
      cards.value.reduce((sum, one) => sum + one.differences.length, 0),
      'difference',
    ),
  ])

  // Somebody may have come here for a lesson or a lost class: its panel opens once, when both are read.
  const stop = watchEffect(() => {
    if (!line.value) return
    const row = card.value?.units.flatMap((unit) =>
      unit.lessons.map((lesson) => ({ of: 'lesson' as const, unit, lesson })),
    )
    const named = row?.find((one) => `lesson-${one.lesson.id}` === route.query.row)
    if (named) open.value = { place: named }
    const lost = line.value.classes.find((one) => one.ordinal === Number(route.query.lost))
    if (lost) open.value = { wanted: { what: 'cancel', of: lost } }
    queueMicrotask(() => stop())
  })

  async function choose(id: number): Promise<void> {
    open.value = null
    await chooseSection(id, ['row', 'lost', 'class'])
  }

  /** Something was just made: it comes into view once it is read. */
  function chooseNamed(name: string): void {
    open.value = null
    const stop = watch(
      cards,
      (now) => {
        const made = now.find((one) => one.name === name)
        if (!made) return
        queueMicrotask(() => stop())
        void choose(made.id)
      },
      { immediate: true },
    )
  }

  async function show(what: (typeof lists)[number]): Promise<void> {
    open.value = null
    await router.replace({ query: { ...route.query, shows: what, row: undefined, lost: undefined } })
  }

  useScreenKeys([{ key: 'Escape', words: 'leave it unchanged', run: () => (open.value = null) }])
  return {
    pace,
    sections,
    again,
    problem,
    open,
    shows,
    inView,
    card,
    line,
    canChange,
    place,
    wanted,
    facts,
    choose,
    chooseNamed,
    show,
  }
}
