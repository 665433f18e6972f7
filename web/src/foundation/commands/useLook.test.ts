// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useLook } from './useLook'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())

const asked: { text: string; signal: AbortSignal; answer: (words: string) => void; fail: (error: unknown) => void }[] =
  []
const look = (text: string, signal: AbortSignal) =>
  new Promise<string>((answer, fail) => asked.push({ text, signal, answer, fail }))

function looking(keeps: boolean) {
  asked.length = 0
  const request = ref<string | null>(null)
  const scope = effectScope()
  const looked = scope.run(() => useLook(request, look, { keeps }))!
  const ask = async (text: string | null) => {
    request.value = text
    await nextTick()
    await vi.advanceTimersByTimeAsync(300)
  }
  return { ...looked, request, ask }
}

describe('a look', () => {
  it('is taken once what is asked has settled', async () => {
    const { request, ask, answer, busy } = looking(false)
    request.value = 'a'
    await nextTick()
    await ask('ab')
    expect(asked.map((one) => one.text)).toEqual(['ab'])
    expect(busy.value).toBe(true)
    asked[0]!.answer('seen ab')
    await vi.advanceTimersByTimeAsync(0)
    expect([answer.value, busy.value]).toEqual(['seen ab', false])
  })

  it('is given up for the next, and a late answer is not heard', async () => {
    const { ask, answer } = looking(false)
    await ask('a')
    await ask('ab')
    expect(asked[0]!.signal.aborted).toBe(true)
    asked[1]!.answer('seen ab')
    asked[0]!.answer('seen a')
    await vi.advanceTimersByTimeAsync(0)
    expect(answer.value).toBe('seen ab')
  })

  it.each([
    [false, null],
    [true, 'seen a'],
  ])('keeps what was answered meanwhile if that is wanted: %s', async (keeps, stands) => {
    const { ask, answer } = looking(keeps)
    await ask('a')
    asked[0]!.answer('seen a')
    await vi.advanceTimersByTimeAsync(0)
    await ask('ab')
    expect(answer.value).toBe(stands)
    await ask(null)
    expect(answer.value).toBeNull()
  })

  it('says what is wrong, until something else is asked', async () => {
    const { ask, problem, busy } = looking(false)
    await ask('a')
    asked[0]!.fail({ code: 'in-use', status: 409, title: 'It is in use.' })
    await vi.advanceTimersByTimeAsync(0)
    expect([problem.value === null, busy.value]).toEqual([false, false])
    await ask('ab')
    expect(problem.value).toBeNull()
  })
})
