import { type Editor, createDocument } from '@tiptap/core'
import { type Ref, computed, onScopeDispose, ref } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { WRITING } from '../../../foundation/session'
import { AS_TYPED, takeOver } from './blocks'

const SAVE_AFTER = 1200
const AGAIN_AFTER = 3000

interface Kept {
  base: string
  html: string
}
const placeOf = (edition: number, item: number) => `${WRITING}text-${edition}-${item}`

/** What was typed on this device and has not reached the server. */
export function keptText(edition: number, item: number): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(placeOf(edition, item)) ?? 'null') as Kept | null
  } catch {
    return null
  }
}

/**
 * A text that is saved as one types, on what one began with. What others wrote meanwhile is taken over as soon as one stops;
 * what the server does not have is kept on this device.
 */
export function useTextDraft(
  edition: number,
  item: number,
  began: Schemas['TextAnswer'],
  editor: Ref<Editor | undefined>,
) {
  const path = { path: { edition, item } }
  const place = placeOf(edition, item)
  const kept = keptText(edition, item)
  /** What the text is written on. */
  const base = ref(kept?.base ?? began.base)
  /** It differs from what students read. */
  const isWritten = ref(began.writing !== null || kept !== null)
  const unsaved = ref(kept !== null)
  const problem = ref<Problem | null>(null)
  const away = ref(false)
  /** How many paragraphs somebody else changed at the same time. */
  const twice = ref(0)
  let typed = 0
  let gone = false
  let timer: ReturnType<typeof setTimeout> | undefined
  let saving: Promise<boolean> | null = null
  let sent = { body: '', key: '' }

  function later(after: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), after)
  }
  function keep(): void {
    if (unsaved.value && editor.value)
      localStorage.setItem(place, JSON.stringify({ base: base.value, html: editor.value.getHTML() } satisfies Kept))
    else localStorage.removeItem(place)
  }
  function type(): void {
    typed++
    unsaved.value = true
    isWritten.value = true
    keep()
    later(SAVE_AFTER)
  }

  /** Takes over the text as it stands, unless one is typing. */
  async function read(): Promise<void> {
    if (gone || unsaved.value || saving) return
    const before = typed
    const now = await ask(api.GET('/api/editions/{edition}/items/{item}/text', { params: path })).catch(() => null)
    if (gone || !now || typed !== before || saving || !editor.value) return
    isWritten.value = now.writing !== null
    if (now.base === base.value) return
    base.value = now.base
    const { state, view, schema } = editor.value
    view.dispatch(takeOver(state.tr, createDocument(now.html, schema, AS_TYPED)))
  }

  async function send(html: string): Promise<boolean> {
    const body = { item, base: base.value, html }
    // What was sent and not answered may well have arrived.
    if (sent.body !== JSON.stringify(body)) sent = { body: JSON.stringify(body), key: crypto.randomUUID() }
    const before = typed
    try {
      const done = await ask(
        api.POST('/api/editions/{edition}/write-text', {
          params: { path: { edition }, header: once(sent.key) },
          body,
        }),
      )
      away.value = false
      problem.value = null
      base.value = done.base
      if (done.twice > 0) twice.value = done.twice
      unsaved.value = typed !== before
      keep()
      return true
    } catch (error) {
      const told = problemOf(error)
      away.value = told.status === 0 || told.status >= 500
      problem.value = away.value ? null : told
      if (away.value) later(AGAIN_AFTER)
      return false
    }
  }

  /** Saves what is typed; what comes in while that is going on is saved after it. */
  async function save(): Promise<boolean> {
    clearTimeout(timer)
    if (saving) await saving
    if (!unsaved.value || !editor.value) return true
    saving = send(editor.value.getHTML()).finally(() => (saving = null))
    const done = await saving
    if (done && unsaved.value) later(SAVE_AFTER)
    // The server may have put in what others wrote.
    else if (done) void read()
    return done
  }

  /** Ends the writing as it is known here, put in place or dropped. False: somebody has written on it since. */
  async function end(): Promise<boolean> {
    const { ended } = await ask(
      api.POST('/api/editions/{edition}/end-text', {
        params: { path: { edition }, header: once() },
        body: { item, base: base.value },
      }),
    )
    return ended
  }

  /** Leaves what was typed here and cannot be saved. */
  function leave(): void {
    clearTimeout(timer)
    unsaved.value = false
    keep()
  }

  if (unsaved.value) later(0)
  onScopeDispose(() => {
    gone = true
    clearTimeout(timer)
  })
  const status = computed(() =>
    away.value
      ? 'Polycline does not answer. What you write is kept on this device until it does.'
      : unsaved.value
        ? 'Saving …'
        : isWritten.value
          ? 'Saved.'
          : '',
  )
  return { base, isWritten, unsaved, problem, twice, status, type, read, save, end, leave }
}
