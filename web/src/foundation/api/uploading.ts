import { WRITING } from '../session'
import { ProblemError, type Schemas, api, ask, once, problemOf } from './client'

/** A file that has arrived: its upload is what to name in order to use it. */
export type SentFile = Schemas['SentFileAnswer']

/** How long to wait before trying again when nobody answers, in ms. */
const AGAIN_AFTER = 2000

const pause = (ms: number, signal: AbortSignal) =>
  new Promise<void>((resolve, reject) => {
    const timer = setTimeout(resolve, ms)
    signal.addEventListener('abort', () => {
      clearTimeout(timer)
      reject(new DOMException('Cancelled', 'AbortError'))
    })
  })

/** Repeats something until the server answers, however long that takes. Any other problem is thrown. */
async function untilAnswered<T>(run: () => Promise<T>, signal: AbortSignal, away: (is: boolean) => void): Promise<T> {
  for (;;) {
    try {
      const answer = await run()
      away(false)
      return answer
    } catch (error) {
      signal.throwIfAborted()
      const { status } = problemOf(error)
      if (status !== 0 && status < 500) throw error
      away(true)
      await pause(AGAIN_AFTER, signal)
    }
  }
}

/** Called as a file is uploaded. */
export interface UploadSteps {
  /** How many bytes have arrived. */
  sent: (bytes: number) => void
  /** Whether the server has stopped answering. What has arrived stays there. */
  away: (is: boolean) => void
}

/** Where this device keeps which upload a file is: chosen again after the page was closed, it goes on where it stopped. */
const placeOf = (file: File) => `${WRITING}upload-${JSON.stringify([file.name, file.size, file.lastModified])}`

/** The upload of this file that was not finished; null: there is none, or it is somebody else's. */
async function unfinished(file: File, signal: AbortSignal): Promise<Schemas['UploadAnswer'] | null> {
  const upload = localStorage.getItem(placeOf(file))
  if (upload === null) return null
  try {
    const found = await ask(api.GET('/api/me/uploads/{upload}', { params: { path: { upload } }, signal }))
    return found.size === file.size && found.received < found.size ? found : null
  } catch (error) {
    const { status } = problemOf(error)
    if (status === 0 || status >= 500) throw error
    return null
  }
}

/**
 * Uploads a file in pieces. After a lost connection it carries on where it stopped, and after the page was closed where the same file is
 * chosen again; once cancelled, nothing of it stays.
 * @param signal Cancels it.
 * @throws ProblemError The file was rejected, and why.
 */
export async function sendFile(file: File, steps: UploadSteps, signal: AbortSignal): Promise<SentFile> {
  const tried = <T>(run: () => Promise<T>) => untilAnswered(run, signal, steps.away)
  const [begin, finish] = [once(), once()]
  const { piece } = await tried(() => ask(api.GET('/api/me/room', { signal })))
  const begun =
    (await tried(() => unfinished(file, signal))) ??
    (await tried(() =>
      ask(
        api.POST('/api/me/begin-upload', {
          params: { header: begin },
          body: { name: file.name, size: file.size },
          signal,
        }),
      ),
    ))
  const { upload } = begun
  const path = { params: { path: { upload } }, signal }
  localStorage.setItem(placeOf(file), upload)
  if (begun.received > 0) steps.sent(begun.received)
  try {
    for (let from = begun.received; from < file.size;) {
      const now = await tried(async () => {
        try {
          return await sendPiece(upload, from, file.slice(from, from + piece), signal)
        } catch (error) {
          // It may have arrived although the answer did not.
          if (problemOf(error).status === 0) return await ask(api.GET('/api/me/uploads/{upload}', path))
          throw error
        }
      })
      from = now.received
      steps.sent(from)
    }
    return await tried(() =>
      ask(api.POST('/api/me/finish-upload', { params: { header: finish }, body: { upload }, signal })),
    )
  } catch (error) {
    void api.POST('/api/me/cancel-upload', { params: { header: once() }, body: { upload } }).catch(() => undefined)
    throw error
  } finally {
    localStorage.removeItem(placeOf(file))
  }
}

async function sendPiece(upload: string, from: number, piece: Blob, signal: AbortSignal) {
  let bytes: ArrayBuffer
  try {
    bytes = await piece.arrayBuffer()
  } catch {
    throw new ProblemError({
      status: 400,
      code: 'unreadable',
      title: 'This file can no longer be read on your device.',
      detail: 'It was moved or changed after you chose it. Choose it again.',
    })
  }
  return ask(
    fetch(`/api/me/uploads/${upload}?from=${from}`, {
      method: 'PUT',
      headers: { 'X-Polycline': '1', 'Content-Type': 'application/octet-stream' },
      body: bytes,
      signal,
    }).then(async (response) => {
      const told = (await response.json().catch(() => undefined)) as unknown
      return response.ok ? { data: told as Schemas['UploadAnswer'], response } : { error: told, response }
    }),
  )
}
