import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'

type Item = Schemas['StudentItemAnswer']

/** What this device keeps of a text until the server has it. */
interface Kept {
  text: string
  /** A hand-in that was pressed and is not answered yet: it is sent once, under this key. */
  pressed?: { key: string; at: string; text: string }
}

const SAVE_AFTER = 800
const AGAIN_AFTER = 3000

const read = (place: string): Kept | null => {
  try {
    return JSON.parse(localStorage.getItem(place) ?? 'null') as Kept | null
  } catch {
    return null
  }
}

/**
 * Writing and handing in. The text is kept on this device at every stroke and on the server soon after; where the server
 * is away, it says so and goes on trying. A hand-in that was pressed is sent once, whenever the server answers.
 */
export function useWriting(section: number, item: number, answer: () => Item | undefined) {
  const client = useQueryClient()
  const place = `polycline-writing-${section}-${item}`
  const kept = read(place)
  const text = ref(kept?.text ?? '')
  const version = ref(0)
  const saved = ref<string | null>(null)
  const problem = ref<Problem | null>(null)
  const away = ref(false)
  const pressed = ref(kept?.pressed ?? null)
  const outcome = ref<Schemas['HandInAnswer'] | null>(null)
  const theirs = ref<{ text: string; version: number } | null>(null)
  let written = kept !== null
  let saving = false
  let timer: ReturnType<typeof setTimeout> | undefined

  function keep(): void {
    const unsaved = text.value !== saved.value || pressed.value
    if (unsaved) localStorage.setItem(place, JSON.stringify({ text: text.value, pressed: pressed.value ?? undefined }))
    else localStorage.removeItem(place)
  }

  function later(run: () => Promise<void>, after: number): void {
    clearTimeout(timer)
    timer = setTimeout(() => void run(), after)
  }

  const readAnew = () => client.invalidateQueries({ queryKey: keys.section(section) })

  // What the server has is taken over until something is written here.
  watch(
    answer,
    (now) => {
      if (!now) return
      version.value = Math.max(version.value, now.draft?.version ?? 0)
      if (!written) {
        text.value = now.draft?.text ?? ''
        saved.value = text.value
      }
      if (pressed.value) later(send, 0)
      else if (written && now.mayWork && text.value !== (now.draft?.text ?? '')) later(save, SAVE_AFTER)
    },
    { immediate: true },
  )

  function write(now: string): void {
    written = true
    text.value = now
    outcome.value = null
    keep()
    later(save, SAVE_AFTER)
  }

  // What was sent and not answered is sent again under the same key: it may well have arrived.
  let unanswered = { text: '', version: -1, key: '' }
  function keyOf(sent: string, of: number): string {
    if (unanswered.text !== sent || unanswered.version !== of)
      unanswered = { text: sent, version: of, key: crypto.randomUUID() }
    return unanswered.key
  }

  async function save(): Promise<void> {
    if (saving || pressed.value || theirs.value) return
    saving = true
    const sent = text.value
    try {
      const done = await ask(
        api.POST('/api/sections/{section}/save-draft', {
          params: { path: { section }, header: once(keyOf(sent, version.value)) },
          body: { item, text: sent, version: version.value },
        }),
      )
      version.value = done.version
      saved.value = sent
      away.value = false
      problem.value = null
      keep()
      if (text.value !== sent) later(save, SAVE_AFTER)
    } catch (error) {
      failed(error, save)
    } finally {
      saving = false
    }
  }

  // Nobody answers: what was written is kept here and tried again. Otherwise it is told.
  function failed(error: unknown, again: () => Promise<void>): void {
    const told = problemOf(error)
    if (told.status === 0 || told.status >= 500) {
      away.value = true
      later(again, AGAIN_AFTER)
      return
    }
    away.value = false
    pressed.value = null
    keep()
    if (told.code === 'changed-meanwhile' && told.conflict)
      theirs.value = { text: told.conflict.theirs ?? '', version: told.conflict.version ?? 0 }
    else problem.value = told
  }

  async function handIn(): Promise<void> {
    pressed.value = { key: crypto.randomUUID(), at: new Date().toISOString(), text: text.value }
    keep()
    await send()
  }

  async function send(): Promise<void> {
    const going = pressed.value
    if (!going) return
    try {
      outcome.value = await ask(
        api.POST('/api/sections/{section}/hand-in', {
          params: { path: { section }, header: once(going.key) },
          body: { item, text: going.text, pressedAt: going.at },
        }),
      )
      pressed.value = null
      away.value = false
      problem.value = null
      if (outcome.value.handedIn) {
        written = false
        version.value = 0
        text.value = ''
        saved.value = ''
      }
      localStorage.removeItem(place)
      await readAnew()
    } catch (error) {
      failed(error, send)
    }
  }

  const takingBack = ref(false)
  /** Takes back what was handed in: its text can be written on, unless something else was begun since. */
  async function takeBack(): Promise<void> {
    takingBack.value = true
    problem.value = null
    await ask(
      api.POST('/api/sections/{section}/take-back', {
        params: { path: { section }, header: once() },
        body: { item },
      }),
    ).then(
      () => (outcome.value = null),
      (error: unknown) => (problem.value = problemOf(error)),
    )
    await readAnew()
    takingBack.value = false
  }

  /** Of two texts that were written at once, the one to go on with. */
  function settle(mine: boolean): void {
    if (!theirs.value) return
    version.value = theirs.value.version
    if (!mine) text.value = theirs.value.text
    theirs.value = null
    keep()
    later(save, 0)
  }

  onScopeDispose(() => clearTimeout(timer))
  const status = computed(() => {
    if (pressed.value)
      return away.value
        ? 'Polycline does not answer. Your hand-in is kept on this device and is sent, once, as soon as it does.'
        : 'Handing in …'
    if (away.value) return 'Polycline does not answer. What you write is kept on this device until it does.'
    if (text.value === '' && saved.value === '') return ''
    return text.value === saved.value ? 'Saved.' : 'Saving …'
  })
  return { text, write, handIn, takeBack, takingBack, status, away, pressed, problem, outcome, theirs, settle }
}
