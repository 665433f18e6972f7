import { computed, onScopeDispose, shallowReactive } from 'vue'
import { type Problem, problemOf } from '../../foundation/api/client'
import { type SentFile, sendFile } from '../../foundation/api/uploading'
import { dropFile, keepFile, keptFiles, takeFile } from '../../foundation/keptFiles'

/** A file being uploaded. */
export interface Going {
  id: number
  name: string
  size: number
  /** How many bytes have arrived. */
  sent: number
  /** The server does not answer; the upload carries on by itself. */
  away: boolean
  /** Why it was rejected; null: it was not. */
  problem: Problem | null
  done: SentFile | null
  /** Cancels it, or dismisses its problem. */
  stop: () => void
}

/**
 * Uploads files, one after another, each with its progress.
 * @param arrived Called with the files that were chosen together, once all of them have arrived.
 * @param place Under which this device keeps them until they have arrived: they go on by themselves when the page is
 * opened again. Without it they do not.
 */
export function useUploads(arrived: (files: SentFile[]) => void, place?: string) {
  const going = shallowReactive<Going[]>([])
  let next = 0
  let before: Promise<unknown> = Promise.resolve()

  const change = (id: number, to: Partial<Going>): void => {
    const at = going.findIndex((one) => one.id === id)
    if (at >= 0) going[at] = { ...going[at]!, ...to }
  }
  const forget = (id: number): void => {
    const at = going.findIndex((one) => one.id === id)
    if (at >= 0) going.splice(at, 1)
  }

  /** Of each that this device keeps: how it is dropped. */
  const kept = new Map<number, Promise<() => Promise<unknown>>>()
  const drop = async (id: number) => (await kept.get(id))?.()
  async function keep(at: string, file: File): Promise<() => Promise<unknown>> {
    const under = await keepFile(at, file)
    if (under === null) return () => Promise.resolve()
    return dropping(under, await takeFile(under))
  }
  const held = new Set<() => void>()
  function dropping(under: number, release: (() => void) | null): () => Promise<unknown> {
    if (release) held.add(release)
    return () => dropFile(under).finally(() => release?.())
  }
  const controls = new Set<AbortController>()

  function add(files: readonly File[], dropped?: readonly (() => Promise<unknown>)[]): void {
    const together = files.map((file, at) => {
      const id = next++
      const control = new AbortController()
      controls.add(control)
      if (place !== undefined) kept.set(id, dropped ? Promise.resolve(dropped[at]!) : keep(place, file))
      const stop = () => {
        control.abort()
        forget(id)
        void drop(id)
      }
      going.push({ id, name: file.name, size: file.size, sent: 0, away: false, problem: null, done: null, stop })
      return { id, file, control }
    })
    before = before.then(async () => {
      const there: SentFile[] = []
      for (const { id, file, control } of together) {
        if (control.signal.aborted) continue
        try {
          const steps = { sent: (sent: number) => change(id, { sent }), away: (away: boolean) => change(id, { away }) }
          const done = await sendFile(file, steps, control.signal)
          there.push(done)
          change(id, { done, sent: file.size })
        } catch (error) {
          if (!control.signal.aborted) {
            change(id, { problem: problemOf(error), away: false })
            void drop(id)
          }
        }
      }
      const done = together.filter(({ id }) => going.find((one) => one.id === id)?.done)
      done.forEach(({ id }) => forget(id))
      if (there.length > 0) arrived(there)
      done.forEach(({ id }) => void drop(id))
    })
  }

  /** Goes on with what was chosen here before the page was closed, unless another page is at it. */
  async function goOn(at: string): Promise<void> {
    const mine: { file: File; drop: () => Promise<unknown> }[] = []
    for (const { id, file } of await keptFiles(at)) {
      const release = await takeFile(id)
      if (release) mine.push({ file, drop: dropping(id, release) })
    }
    if (mine.length > 0)
      add(
        mine.map((one) => one.file),
        mine.map((one) => one.drop),
      )
  }
  if (place !== undefined) void goOn(place)

  // Once the page is left, nothing would use the files; what is kept goes on when it is opened again.
  onScopeDispose(() => {
    controls.forEach((control) => control.abort())
    held.forEach((release) => release())
  })

  return { going, add, busy: computed(() => going.some((one) => !one.problem)) }
}
