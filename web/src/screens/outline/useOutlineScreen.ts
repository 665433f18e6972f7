import { useLocalStorage } from '@vueuse/core'
import { type Ref, computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useLevels } from '../../foundation/levels'
import { useScreenKeys } from '../../foundation/useKeys'
import { nudge, putUnder } from './outlineMoves'
import { type Row, titleOf } from './outlineRows'
import { type View, homesOf, inView, stretch, viewOf, withTaken } from './outlineView'
import type { KindOfRow } from './adding/newRow'
import { useOutline } from './useOutline'
import { useOutlineEdits } from './useOutlineEdits'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

const SHOWN = ['lines', 'dates', 'handed-in'] as const

/** Everything one does with the rows of the outline: finding, folding, opening, taking several, moving, adding. */
export function useOutlineScreen(edition: Ref<number>, list: Readonly<Ref<HTMLElement | null>>) {
  const route = useRoute()
  const router = useRouter()
  const levels = useLevels()
  const { outline, problem, again, rows, facts } = useOutline(edition)
  const edits = useOutlineEdits(edition)

  // What is folded is kept for each person on this device.
  const places = useAnswer(() => questions.places())
  const kept = useLocalStorage<string[]>(
    () => `polycline-folded ${edition.value} ${places.data.value?.name ?? ''}`,
    [],
    { writeDefaults: false },
  )
  const folded = computed(() => new Set(kept.value))
  // What is looked for stands in the address, so that it can be sent and come back to.
  const view = computed<View>({
    get: () => viewOf(route.query),
    set: ({ words, only }) =>
      void router.replace({ query: { ...route.query, words: words || undefined, only: only || undefined } }),
  })
  const shownRows = computed(() => inView(rows.value, view.value, folded.value, levels.value))
  const allFolded = computed(() => rows.value.every((row) => row.level !== 'unit' || folded.value.has(row.key)))

  function fold(key: string, isFolded = !folded.value.has(key)): void {
    kept.value = isFolded ? [...new Set([...kept.value, key])] : kept.value.filter((one) => one !== key)
  }
  function foldAll(): void {
    kept.value = allFolded.value ? [] : rows.value.filter((row) => row.level === 'unit').map((row) => row.key)
  }

  /** The open row, and what stands at the right of each, are in the address. */
  const opened = computed(() => (typeof route.query.row === 'string' ? route.query.row : null))
  const show = computed({
    get: () => SHOWN.find((one) => one === route.query.show) ?? 'lines',
    set: (way) => void router.replace({ query: { ...route.query, show: way === 'lines' ? undefined : way } }),
  })
  const open = (key: string | null) => router.replace({ query: { ...route.query, row: key ?? undefined } })
  // What is opened from elsewhere is unfolded.
  watch(
    [opened, rows],
    ([key]) => {
      const row = rows.value.find((one) => one.key === key)
      if (row) homesOf(row).forEach((home) => folded.value.has(home) && fold(home, false))
    },
    { immediate: true },
  )

  /** The keys of the rows that are taken. */
  const chosen = ref(new Set<string>())
  let anchor: string | null = null
  const chosenRows = computed(() => rows.value.filter((row) => chosen.value.has(row.key)))
  const isChosen = (row: Row) => chosen.value.has(row.key)
  function choose(row: Row, extend: boolean): void {
    const taken = extend && anchor ? stretch(shownRows.value, anchor, row.key) : [row]
    const shown = new Set(shownRows.value.map((one) => one.key))
    const isFiltered = view.value.words.trim() !== '' || view.value.only !== ''
    const hidden = new Set(isFiltered ? rows.value.map((one) => one.key).filter((key) => !shown.has(key)) : [])
    chosen.value = withTaken(rows.value, hidden, chosen.value, taken, extend || !isChosen(row))
    anchor = row.key
  }
  const letGo = () => (chosen.value = new Set())

  const canChange = computed(() => outline.value?.canChange ?? false)

  const focusOn = (key: string) => list.value?.querySelector<HTMLElement>(`[data-stop="${key}"]`)?.focus()
  const focused = () => {
    const key = (document.activeElement as HTMLElement | null)?.closest<HTMLElement>('[data-row]')?.dataset.row
    return shownRows.value.find((row) => row.key === key) ?? null
  }
  function step(by: number): void {
    const stops = [...(list.value?.querySelectorAll<HTMLElement>('[data-stop]') ?? [])]
    const at = stops.indexOf(document.activeElement as HTMLElement)
    stops[at < 0 ? 0 : Math.min(stops.length - 1, Math.max(0, at + by))]?.focus()
  }
  function stepAndChoose(by: number): void {
    const from = focused()
    step(by)
    const to = focused()
    if (from && !anchor) anchor = from.key
    if (to) choose(to, true)
  }

  /** Closes a row and leaves the focus where it was opened from. */
  async function close(key: string): Promise<void> {
    await open(null)
    focusOn(key)
  }
  async function move(row: Row, by: -1 | 1): Promise<void> {
    if (edits.busy.value) return
    await edits.move(nudge(rows.value, row, by))
    await nextTick()
    focusOn(row.key)
  }
  const drop = (row: Row, above: Row | null) => edits.move(putUnder(row, above))
  async function remove(row: Row): Promise<void> {
    if (await edits.remove(row)) await open(null)
  }

  /** Under which row something new is being written, of which kind; null: a unit, at the very end. */
  const adding = ref<{ under: string | null; kind?: KindOfRow } | null>(null)
  const newTitle = ref('')
  watch(adding, (now) => {
    if (!now) newTitle.value = ''
  })
  const addUnder = (row: Row | null) => (adding.value = { under: row?.key ?? null })
  /** The next one is written under what was just added, so that several come to stand in the order in which they are written. */
  function addNext(kind: KindOfRow, title: string): void {
    const stop = watch(
      rows,
      (now) => {
        const under = now.findIndex((row) => row.key === adding.value?.under)
        const added = under < 0 ? undefined : now.slice(under + 1).find((row) => titleOf(row) === title)
        if (!added) return
        adding.value = { under: added.key, kind }
        queueMicrotask(() => stop())
      },
      { immediate: true },
    )
  }

  /** What one comes to do is done once, also where one is there already. */
  const isSettings = ref(false)
  watch(
    () => route.query.do,
    (what) => {
      if (what === 'settings') isSettings.value = true
      if (what === 'add') adding.value = { under: null }
      if (what === 'settings' || what === 'add') void router.replace({ query: { ...route.query, do: undefined } })
    },
    { immediate: true },
  )

  useScreenKeys([
    { key: 'ArrowDown', words: 'to the next row', run: () => step(1) },
    { key: 'ArrowUp', words: 'to the row before', run: () => step(-1) },
    { key: 'Enter', words: 'open the row' },
    { key: 'Escape', words: 'close it unchanged; let go of what is chosen', run: leave },
    { key: 'ArrowLeft', words: 'fold', run: () => foldFocused(true) },
    { key: 'ArrowRight', words: 'unfold', run: () => foldFocused(false) },
    { key: 'n', words: 'add a row under this one', run: () => addUnder(focused()) },
    { key: 'x', words: 'choose the row, or let it go', run: () => chooseFocused() },
    { key: 'Shift+ArrowDown', words: 'choose the next row too', run: () => stepAndChoose(1) },
    { key: 'Shift+ArrowUp', words: 'choose the row before too', run: () => stepAndChoose(-1) },
    { key: 'Alt+↑ ↓', words: 'move the row' },
  ])
  function leave(): void {
    if (adding.value) adding.value = null
    else if (opened.value) void close(opened.value)
    else letGo()
  }
  function foldFocused(isFolded: boolean): void {
    const row = focused()
    if (row && row.level !== 'item') fold(row.key, isFolded)
  }
  function chooseFocused(): void {
    const row = focused()
    if (row && canChange.value) choose(row, false)
  }

  return {
    ...{ outline, problem, again, rows, facts, edits, view, shownRows, folded, fold, foldAll, allFolded, show },
    ...{ opened, open, close, move, drop, remove, chosen, chosenRows, isChosen, choose, letGo },
    ...{ adding, newTitle, addUnder, addNext, isSettings, canChange },
  }
}
