import { computed, onScopeDispose, shallowReactive } from 'vue'
import { type Problem, problemOf } from '../../foundation/api/client'
import { type SentFile, sendFile } from '../../foundation/api/uploading'

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
 */
export function useUploads(arrived: (files: SentFile[]) => void) {
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

  function add(files: readonly File[]): void {
    const together = files.map((file) => {
      const id = next++
      const control = new AbortController()
      const stop = () => {
        control.abort()
        forget(id)
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
          if (!control.signal.aborted) change(id, { problem: problemOf(error), away: false })
        }
      }
      for (const { id } of together) if (going.find((one) => one.id === id)?.done) forget(id)
      if (there.length > 0) arrived(there)
    })
  }

  // Once the page is left, nothing would use the files.
  onScopeDispose(() => [...going].forEach((one) => one.stop()))

  return { going, add, busy: computed(() => going.some((one) => !one.problem)) }
}
