// @vitest-environment jsdom
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'

/** A server that takes pieces of 4 bytes, and does with each request what it is told to first. */
class Server {
  received = 0
  cancelled = false
  asked: string[] = []
  /** What happens to the next pieces: nothing comes through, or the answer is lost. */
  trouble: ('lost' | 'answer lost' | 'down')[] = []
  refuses = false
  readonly size: number

  constructor(size: number) {
    this.size = size
  }

  async answer(address: string, method: string, body: number): Promise<Response> {
    const path = new URL(address, 'http://polycline.test').pathname
    this.asked.push(`${method} ${path.replace(/^\/api\/me\//, '')}`)
    if (path.endsWith('/room')) return json({ piece: 4 })
    if (path.endsWith('/begin-upload')) return json({ upload: 'u1', received: 0 })
    if (path.endsWith('/cancel-upload')) {
      this.cancelled = true
      return json({})
    }
    if (path.endsWith('/finish-upload'))
      return this.refuses
        ? json({ code: 'field', title: 'This is a program.', detail: 'Send something else.' }, 422)
        : json({ upload: 'u1', name: 'tide.csv', size: this.received, sizeInWords: `${this.received} bytes` })
    if (method === 'PUT') {
      const trouble = this.trouble.shift()
      if (trouble === 'lost') throw new TypeError('Failed to fetch')
      if (trouble === 'down') return json({ code: 'fault' }, 503)
      const from = Number(new URL(address, 'http://polycline.test').searchParams.get('from'))
      if (from === this.received) this.received += body
      if (trouble === 'answer lost') throw new TypeError('Failed to fetch')
    }
    return json({ upload: 'u1', size: this.size, received: this.received })
  }
}

const json = (data: unknown, status = 200) => new Response(JSON.stringify(data), { status })

let server: Server
const steps = () => {
  const said: (number | boolean)[] = []
  return { said, sent: (bytes: number) => void said.push(bytes), away: (is: boolean) => is && void said.push(true) }
}
/** Lets time pass until it is settled. */
async function settled<T>(running: Promise<T>): Promise<T> {
  let over = false
  const done = () => (over = true)
  running.then(done, done)
  while (!over) await vi.advanceTimersByTimeAsync(500)
  return running
}

const file = (bytes: number) => new File([new Uint8Array(bytes)], 'tide.csv')

let problemOf: (typeof import('./client'))['problemOf']
let sendFile: (typeof import('./uploading'))['sendFile']

beforeAll(async () => {
  vi.stubGlobal('fetch', async (asked: Request | string, options?: RequestInit) => {
    const address = typeof asked === 'string' ? asked : asked.url
    const body = options?.body instanceof ArrayBuffer ? options.body.byteLength : 0
    return server.answer(address, options?.method ?? (asked as Request).method, body)
  })
  // What talks to the server takes hold of it once.
  ;({ problemOf } = await import('./client'))
  ;({ sendFile } = await import('./uploading'))
})
beforeEach(() => {
  vi.useFakeTimers()
  // jsdom's files cannot be read in pieces.
  Blob.prototype.arrayBuffer = function (this: Blob) {
    return Promise.resolve(new ArrayBuffer(this.size))
  }
})
afterEach(() => {
  vi.useRealTimers()
})

describe('a file that is uploaded', () => {
  it('goes in pieces, and says how far it is', async () => {
    server = new Server(10)
    const told = steps()
    const done = await settled(sendFile(file(10), told, new AbortController().signal))
    expect(done).toMatchObject({ upload: 'u1', size: 10 })
    expect(told.said).toEqual([4, 8, 10])
    expect(server.asked.filter((one) => one.startsWith('PUT'))).toHaveLength(3)
  })

  it('carries on where it stopped when a piece or its answer was lost, and sends no byte twice', async () => {
    server = new Server(10)
    server.trouble = ['answer lost', 'lost', 'down']
    const told = steps()
    await settled(sendFile(file(10), told, new AbortController().signal))
    expect(server.received).toBe(10)
    expect(told.said.filter((one) => one !== true)).toEqual([4, 4, 8, 10])
    expect(told.said).toContain(true)
    expect(server.cancelled).toBe(false)
  })

  it('carries on where it stopped when the same file is chosen again after the page was closed', async () => {
    const chosen = new File([new Uint8Array(10)], 'tide.csv', { lastModified: 1 })
    // What a page that was closed leaves behind.
    localStorage.setItem('polycline-writing-upload-["tide.csv",10,1]', 'u1')
    server = new Server(10)
    server.received = 8
    const told = steps()
    await settled(sendFile(chosen, told, new AbortController().signal))
    expect(told.said).toEqual([8, 10])
    expect(server.asked).not.toContain('POST begin-upload')
    // Sent, it is a file like any other: once more, it begins anew.
    server = new Server(10)
    await settled(sendFile(chosen, steps(), new AbortController().signal))
    expect(server.asked).toContain('POST begin-upload')
  })

  it('is given up with the reason when it is rejected, and nothing of it stays', async () => {
    server = new Server(3)
    server.refuses = true
    const sent = settled(sendFile(file(3), steps(), new AbortController().signal))
    await expect(sent).rejects.toThrow('This is a program.')
    expect(server.cancelled).toBe(true)
    await sent.catch((error: unknown) => expect(problemOf(error).status).toBe(422))
  })

  it('stops when it is cancelled, also while nobody answers', async () => {
    server = new Server(10)
    server.trouble = Array.from({ length: 50 }, () => 'down' as const)
    const cancel = new AbortController()
    const sent = settled(
      sendFile(file(10), { sent: () => undefined, away: (is) => is && cancel.abort() }, cancel.signal),
    )
    await expect(sent).rejects.toThrow()
    expect(server.cancelled).toBe(true)
    expect(server.received).toBe(0)
  })
})
