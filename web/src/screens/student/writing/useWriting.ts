import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import type { SentFile } from '../../../foundation/api/uploading'
import { keys } from '../../../foundation/keys'
import { WRITING } from '../../../foundation/session'
import {
  type Entry,
  type Item,
  type OwnFile,
  type Written,
  beginning,
  copiesOf,
  listed,
  mark,
  named,
  nothing,
  readKept,
  writtenIn,
} from './written'

const SAVE_AFTER = 800
const AGAIN_AFTER = 3000

/**
 * Writing and handing in. The text is kept on this device at every stroke and on the server soon after; where the server
 * is away, it says so and goes on trying. A hand-in that was pressed is sent once, whenever the server answers.
 */
export function useWriting(section: number, item: number, student: number | null, answer: () => Item | undefined) {
  const client = useQueryClient()
  // On a device that several use, nobody finds what another has written.
  const place = `${WRITING}${student}-${section}-${item}`
  const kept = readKept(place)
  const text = ref(kept?.text ?? '')
  const files = ref<OwnFile[]>(kept?.files ?? [])
  const links = ref<string[]>(kept?.links ?? [])
  const entries = ref<Entry[]>(kept?.entries ?? [])
  const copies = ref<Record<number, string>>(kept?.copies ?? {})
  const judged = ref<Written['judged']>(kept?.judged ?? [])
  const now = (): Written => ({
    text: text.value,
    files: files.value,
    links: links.value,
    entries: entries.value,
    copies: copies.value,
    judged: judged.value,
  })
  const isEmpty = computed(
    () => text.value.trim() === '' && !files.value.length && !links.value.length && !entries.value.length,
  )
  function takeOver(written: Written): void {
    text.value = written.text
    files.value = written.files
    links.value = written.links
    entries.value = written.entries
    copies.value = written.copies
    judged.value = written.judged
  }
  const version = ref(0)
  /** What is asked for and is not there, as of the last time it was saved. */
  const stillAsked = ref<string[]>([])
  /** Something that was asked for is missing, and it was pressed. */
  const asking = ref(false)
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
    const unsaved = mark(now()) !== saved.value || pressed.value
    if (unsaved) localStorage.setItem(place, JSON.stringify({ ...now(), pressed: pressed.value ?? undefined }))
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
    (read) => {
      if (!read) return
      version.value = Math.max(version.value, read.draft?.version ?? 0)
      const draft = read.draft
        ? {
            ...read.draft,
            files: read.draft.files.map(listed),
            copies: Object.fromEntries(
              read.copies.flatMap(({ own, written }) => (own !== null && written !== null ? [[own, written]] : [])),
            ),
          }
        : beginning(read)
      if (!written) {
        takeOver(draft)
        saved.value = mark(draft)
        stillAsked.value = read.stillAsked
      }
      if (pressed.value) later(send, 0)
      else if (written && read.mayWork && mark(now()) !== mark(draft)) later(save, SAVE_AFTER)
    },
    { immediate: true },
  )

  function changed(after: number): void {
    written = true
    outcome.value = null
    asking.value = false
    keep()
    later(save, after)
  }
  function write(typed: string): void {
    text.value = typed
    changed(SAVE_AFTER)
  }
  /** Puts files with the text, takes them out, or puts them in another order. */
  function list(wanted: OwnFile[]): void {
    files.value = wanted
    changed(0)
  }
  /** What is written in a copy. */
  function writeIn(file: number, typed: string): void {
    copies.value = { ...copies.value, [file]: typed }
    changed(SAVE_AFTER)
  }
  /** Goes on with the copies that were handed in. */
  function goOn(): void {
    const item = answer()
    if (item && isEmpty.value && copiesOf(item).length) list(copiesOf(item))
  }
  /** Puts a file that was sent in the place of a copy. */
  const replace = (file: OwnFile, sent: SentFile) =>
    list(files.value.map((one) => (one === file ? { ...one, upload: sent.upload, shown: null } : one)))
  /** The addresses that go with it. */
  function linkTo(wanted: string[]): void {
    links.value = wanted
    changed(SAVE_AFTER)
  }
  /** The entries of a log. */
  function log(wanted: Entry[]): void {
    entries.value = wanted
    changed(SAVE_AFTER)
  }
  /** What they say of it by its rubric. */
  function judge(levels: Written['judged']): void {
    judged.value = levels
    changed(SAVE_AFTER)
  }
  const add = (sent: readonly SentFile[]) =>
    list([
      ...files.value,
      ...sent.map((file) => ({ id: null, upload: file.upload, name: file.name, size: file.sizeInWords, shown: null })),
    ])

  // What was sent and not answered is sent again under the same key: it may well have arrived.
  let unanswered = { sent: '', version: -1, key: '' }
  function keyOf(sent: string, of: number): string {
    if (unanswered.sent !== sent || unanswered.version !== of)
      unanswered = { sent, version: of, key: crypto.randomUUID() }
    return unanswered.key
  }

  async function save(): Promise<void> {
    if (saving || pressed.value || theirs.value) return
    saving = true
    const sent = { ...now(), files: [...files.value] }
    try {
      const done = await ask(
        api.POST('/api/sections/{section}/save-draft', {
          params: { path: { section }, header: once(keyOf(mark(sent), version.value)) },
          body: { ...sent, item, version: version.value, files: named(sent.files), copies: writtenIn(sent) },
        }),
      )
      version.value = done.version
      // What was sent as a file is one of the student's own from now on.
      const own = done.files.map(listed)
      files.value = files.value.map((file) => {
        const at = sent.files.findIndex((one) => one.id === file.id && one.upload === file.upload)
        return (file.upload !== null && own[at]) || file
      })
      // Copies that this page had not heard of.
      files.value = [...files.value, ...own.slice(sent.files.length)]
      saved.value = mark({ ...sent, files: own })
      stillAsked.value = done.stillAsked
      away.value = false
      problem.value = null
      keep()
      if (mark(now()) !== saved.value) later(save, SAVE_AFTER)
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

  /** Pressed once; what is missing is said first, unless nobody answers. */
  async function handIn(anyway = false): Promise<void> {
    if (!anyway && mark(now()) !== saved.value) await save()
    asking.value = !anyway && stillAsked.value.length > 0 && mark(now()) === saved.value
    if (asking.value) return
    pressed.value = { key: crypto.randomUUID(), at: new Date().toISOString(), ...now() }
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
          body: {
            item,
            text: going.text,
            links: going.links ?? [],
            entries: going.entries ?? [],
            pressedAt: going.at,
            files: named(going.files ?? []),
            copies: writtenIn({ ...nothing(), ...going }),
            judged: going.judged ?? [],
          },
        }),
      )
      pressed.value = null
      away.value = false
      problem.value = null
      if (outcome.value.handedIn) {
        written = false
        version.value = 0
        takeOver(nothing())
        stillAsked.value = []
        saved.value = mark(now())
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
    if (isEmpty.value && mark(now()) === saved.value) return ''
    return mark(now()) === saved.value ? 'Saved.' : 'Saving …'
  })
  return {
    text,
    files,
    links,
    entries,
    isEmpty,
    asking,
    stillAsked,
    linkTo,
    log,
    write,
    list,
    add,
    handIn,
    takeBack,
    takingBack,
    status,
    away,
    pressed,
    problem,
    outcome,
    theirs,
    settle,
    copies,
    judged,
    judge,
    writeIn,
    replace,
    goOn,
  }
}
