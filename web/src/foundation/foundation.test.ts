// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type EffectScope, effectScope, nextTick, ref, shallowRef } from 'vue'
import { ProblemError, ask, once, problemOf } from './api/client'
import { hasMissed, noteCounters } from './counters'
import { levelsOf, plainLevels } from './levels'
import { usePinned } from './commands/usePinned'
import { NoLongerAsked } from './commands/useCommand'
import { useReach } from './commands/useReach'

let scope: EffectScope
beforeEach(() => {
  vi.useFakeTimers()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

const problem = (status: number, told: object) =>
  Promise.resolve({ error: told, response: new Response('{}', { status }) })

describe('an answer', () => {
  it('is its data, or its problem thrown with what the server told', async () => {
    expect(await ask(Promise.resolve({ data: 7, response: new Response('7') }))).toBe(7)
    const refused = await ask(
      problem(422, { code: 'invalid', title: 'No.', detail: 'Say it otherwise.', field: 'title' }),
    ).catch(problemOf)
    expect(refused).toMatchObject({ status: 422, code: 'invalid', title: 'No.', field: 'title' })
  })

  it('that does not come says that what was written is still there', async () => {
    const away = await ask(Promise.reject(new TypeError('network'))).catch(problemOf)
    expect(away).toMatchObject({ status: 0, code: 'away' })
    expect(problemOf(new Error('a slip of the page')).title).toBe('Something went wrong on this page.')
    const bare = await ask(problem(500, {})).catch(problemOf)
    expect(bare).toMatchObject({ status: 500, title: 'Something went wrong.' })
  })
})

describe('what is sent once', () => {
  it('has a key of its own, or that of what was sent before', () => {
    expect(once('a')).toEqual({ 'Idempotency-Key': 'a' })
    expect(once()['Idempotency-Key']).not.toBe(once()['Idempotency-Key'])
  })
})

describe('the reach of what is about to be done', () => {
  const told = (sentence: string) => ({ reach: { sentence } })

  it('is told of a form, and not only of a number', async () => {
    const form = shallowRef<{ n: number } | null>({ n: 1 })
    const sentence = scope.run(() => useReach(form, ({ n }: { n: number }) => Promise.resolve(told(`moves ${n}`))))!
    await vi.runAllTimersAsync()
    expect(sentence.value).toBe('moves 1')
    form.value = { n: 2 }
    await vi.runAllTimersAsync()
    expect(sentence.value).toBe('moves 2')
  })

  it('is that of what is asked now, however late an earlier answer comes', async () => {
    const answers = new Map<number, (answer: { reach: { sentence: string } }) => void>()
    const request = ref<number | null>(1)
    const sentence = scope.run(() =>
      useReach(request, (n: number) => new Promise((resolve) => answers.set(n, resolve))),
    )!
    request.value = 2
    await nextTick()
    await vi.advanceTimersByTimeAsync(300)
    answers.get(2)!(told('for two'))
    answers.get(1)!(told('for one'))
    await vi.advanceTimersByTimeAsync(0)
    expect(sentence.value).toBe('for two')
  })

  it('is given up as soon as something else is asked, and says nothing of that', async () => {
    const given: AbortSignal[] = []
    const request = ref<number | null>(1)
    const sentence = scope.run(() =>
      useReach(request, (_, signal) => {
        given.push(signal)
        return new Promise((_, refuse) => signal.addEventListener('abort', () => refuse(new NoLongerAsked())))
      }),
    )!
    request.value = 2
    await vi.advanceTimersByTimeAsync(300)
    expect(given.map((signal) => signal.aborted)).toEqual([true, false])
    scope.stop()
    await vi.advanceTimersByTimeAsync(0)
    expect([given[1]!.aborted, sentence.value]).toEqual([true, ''])
  })

  it('says why there is none, and nothing where nothing is asked', async () => {
    const request = ref<number | null>(1)
    const refused = new ProblemError({ status: 422, code: 'invalid', title: 'Not so.', detail: '' })
    const sentence = scope.run(() => useReach(request, () => Promise.reject(refused)))!
    await vi.advanceTimersByTimeAsync(0)
    expect(sentence.value).toBe('Not so.')
    request.value = null
    await nextTick()
    await vi.advanceTimersByTimeAsync(300)
    expect(sentence.value).toBe('')
  })
})

describe('the version that was read', () => {
  it('stays until one goes over somebody else’s change knowingly', () => {
    const { version, overTheirs } = usePinned(3)
    overTheirs(null)
    overTheirs({ status: 409, code: 'changed-meanwhile', title: '', detail: '' })
    expect(version.value).toBe(3)
    const conflict = { version: 5 } as never
    overTheirs({ status: 409, code: 'changed-meanwhile', title: '', detail: '', conflict })
    expect(version.value).toBe(5)
  })
})

describe('counters', () => {
  const answer = (url: string, counters: string | null) =>
    noteCounters({ url, headers: new Headers(counters ? { 'Polycline-Counters': counters } : {}) } as Response)

  it('tell whether something came between what was read and what is watched', () => {
    answer('http://x/api/editions/4/outline', '10.2')
    expect(hasMissed('edition', 4, '10.2')).toBe(false)
    answer('http://x/api/editions/4/dates', '11.2')
    answer('http://x/api/editions/4/dates', null)
    expect(hasMissed('edition', 4, '11.2')).toBe(true)
    expect(hasMissed('edition', 4, '11.2')).toBe(false)
    // Of what was never read it cannot be said that nothing was missed.
    expect(hasMissed('term', 4, '11.2')).toBe(true)
  })
})

describe('levels', () => {
  it('are counted by their own names', () => {
    const levels = levelsOf({
      unit: { one: 'week', many: 'weeks', a: 'a week' },
      lesson: { one: 'topic', many: 'topics', a: 'a topic' },
      item: { one: 'hour', many: 'hours', a: 'an hour' },
    })
    expect([levels.unit.counted(1), levels.lesson.counted(2), levels.item.a]).toEqual(['1 week', '2 topics', 'an hour'])
    expect(plainLevels.item.counted(0)).toBe('0 items')
  })
})
