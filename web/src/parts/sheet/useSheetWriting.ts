import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { WRITING } from '../../foundation/session'

/** A paragraph that is being written. */
export interface Writing {
  /** Null: it is new. */
  block: number | null
  /** The paragraph that a new one follows; null: it comes first. */
  after: number | null
  /** The version that is being changed; 0: it is new. */
  base: number
  text: string
}

const SAVE_AFTER = 1500
const AGAIN_AFTER = 3000

/**
 * Writing in a sheet that others write in too: saved as one types, on the version one began with. What others changed
 * meanwhile is taken over as soon as one stops; what was typed is kept on this device until the server has it.
 */
export function useSheetWriting(section: number, item: number, who: number | null) {
  const client = useQueryClient()
  const place = `${WRITING}sheet-${who}-${section}-${item}`
  const writing = ref<Writing | null>(kept(place))
  const problem = ref<Problem | null>(null)
  const away = ref(false)
  /** Somebody else had changed the same words: what was written stands in a paragraph of its own. */
  const apart = ref(false)
  const unsaved = ref(writing.value !== null)
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<boolean> | null = null
  let sent = { body: '', key: '' }

  function later(after: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), after)
  }
  function keep(): void {
    if (writing.value && unsaved.value) localStorage.setItem(place, JSON.stringify(writing.value))
    else localStorage.removeItem(place)
  }

  function type(text: string): void {
    if (!writing.value) return
    writing.value = { ...writing.value, text }
    unsaved.value = true
    apart.value = false
    keep()
    if (text.trim() !== '') later(SAVE_AFTER)
  }

  /** Takes over the sheet as it stands now. */
  function take(blocks: Schemas['SheetBlock'][]): void {
    client.setQueriesData<Schemas['SheetAnswer']>(
      { queryKey: questions.sheet(section, item).queryKey.slice(0, 3) },
      (sheet) => sheet && { ...sheet, blocks },
    )
  }

  async function send(one: Writing): Promise<boolean> {
    const body = {
      item,
      block: one.block,
      after: one.block === null ? one.after : null,
      base: one.base,
      text: one.text,
    }
    // What was sent and not answered may well have arrived.
    if (sent.body !== JSON.stringify(body)) sent = { body: JSON.stringify(body), key: crypto.randomUUID() }
    try {
      const done = await ask(
        api.POST('/api/sections/{section}/write-sheet', {
          params: { path: { section }, header: once(sent.key) },
          body,
        }),
      )
      away.value = false
      problem.value = null
      apart.value = done.apart
      take(done.blocks)
      const now = done.blocks.find((block) => block.id === done.block)
      const typed = writing.value?.text
      if (writing.value && typed === one.text) {
        unsaved.value = false
        writing.value = { ...writing.value, block: done.block, base: now?.n ?? done.mine, text: now?.text ?? one.text }
      } else if (writing.value) writing.value = { ...writing.value, block: done.block, base: done.mine }
      keep()
      return true
    } catch (error) {
      const told = problemOf(error)
      if (told.status === 0 || told.status >= 500) {
        away.value = true
        later(AGAIN_AFTER)
      } else {
        away.value = false
        problem.value = told
      }
      return false
    }
  }

  async function save(): Promise<boolean> {
    clearTimeout(timer)
    if (saving) await saving
    const one = writing.value
    if (!one || !unsaved.value) return true
    if (one.text.trim() === '' && one.block === null) return true
    saving = send(one).finally(() => (saving = null))
    const done = await saving
    if (done && unsaved.value) later(SAVE_AFTER)
    return done
  }

  async function begin(block: Schemas['SheetBlock'] | null, after: number | null = null): Promise<void> {
    if (!(await finish())) return
    apart.value = false
    writing.value = { block: block?.id ?? null, after, base: block?.n ?? 0, text: block?.text ?? '' }
  }

  /** Saves what is unsaved and stops writing; while nobody answers, one goes on. */
  async function finish(): Promise<boolean> {
    if (writing.value && unsaved.value && !(await save())) return false
    if (unsaved.value && writing.value?.text.trim() !== '') return false
    writing.value = null
    unsaved.value = false
    keep()
    return true
  }

  /** What was taken out last, and can be put back as it was. */
  const taken = ref<Writing | null>(null)
  /** Takes a paragraph out, unless somebody has changed it meanwhile. */
  async function remove(block: Schemas['SheetBlock']): Promise<void> {
    if (!(await finish())) return
    const gone = (await send({ block: block.id, after: null, base: block.n, text: '' })) && !apart.value
    taken.value = gone ? { block: block.id, after: null, base: block.n + 1, text: block.text } : null
  }
  async function putBack(): Promise<void> {
    if (taken.value && (await send(taken.value))) taken.value = null
  }

  /** Leaves what cannot be saved. */
  function leave(): void {
    clearTimeout(timer)
    writing.value = null
    unsaved.value = false
    problem.value = null
    keep()
  }

  if (unsaved.value) later(0)
  onScopeDispose(() => clearTimeout(timer))
  const status = computed(() =>
    away.value
      ? 'Polycline does not answer. What you write is kept on this device until it does.'
      : unsaved.value && writing.value?.text.trim() !== ''
        ? 'Saving …'
        : writing.value?.block
          ? 'Saved.'
          : '',
  )
  return { writing, problem, apart, away, status, type, begin, finish, remove, taken, putBack, leave }
}

function kept(place: string): Writing | null {
  try {
    return JSON.parse(localStorage.getItem(place) ?? 'null') as Writing | null
  } catch {
    return null
  }
}
