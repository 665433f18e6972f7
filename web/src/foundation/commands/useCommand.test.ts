// @vitest-environment jsdom
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createApp, effectScope, ref } from 'vue'
import { expect, test } from 'vitest'
import type { Schemas } from '../api/client'
import { LeftAsItIs, leaveAsked, useAsked } from './asking'
import { type Send, useCommand } from './useCommand'

type Effect = 'none' | 'some' | 'takes'

/** A command whose server says that it has that effect, and the requests that were sent, in order. */
function command(effect: Effect) {
  const sent: string[] = []
  const send: Send<{ n: number }> = ({ n }, { params }) => {
    sent.push(`${params.query.preview ? (params.query.names ? 'names' : 'look') : 'do'} ${n}`)
    const reach = { rows: [], sections: [], sentence: 'Something happens.', effect, students: null, others: 0 }
    const data = { applied: !params.query.preview, batch: 1, version: 1, words: 'did', act: 'Do it', reach }
    const response = new Response('{}', { status: 200 })
    return Promise.resolve({ data: data as unknown as Schemas['CommandAnswer'], response })
  }
  const app = createApp({})
  app.use(VueQueryPlugin)
  const made = app.runWithContext(() => effectScope().run(() => useCommand(ref(['edition']), send)))!
  return { sent, ...made }
}

const asked = useAsked()
const flushPromises = () => new Promise((resolve) => setTimeout(resolve))

test('what changes nothing for students is looked at and done at once', async () => {
  const { sent, run } = command('none')
  await run({ n: 1 })
  expect([sent, asked.value]).toEqual([['look 1', 'do 1'], null])
})

test.each(['some', 'takes'] as const)('what changes something (%s) waits until it is said yes to', async (effect) => {
  const { sent, run, busy } = command(effect)
  const done = run({ n: 1 })
  await flushPromises()
  expect([sent, busy.value, asked.value?.answer.reach.sentence]).toEqual([['look 1'], true, 'Something happens.'])
  await asked.value!.named!()
  asked.value!.settle(true)
  await done
  expect([sent, busy.value, asked.value]).toEqual([['look 1', 'names 1', 'do 1'], false, null])
})

test('what is left is not done, and nothing is told of it', async () => {
  const { sent, run, busy, problem } = command('takes')
  const done = run({ n: 1 })
  await flushPromises()
  leaveAsked()
  await expect(done).rejects.toBeInstanceOf(LeftAsItIs)
  expect([sent, busy.value, problem.value]).toEqual([['look 1'], false, null])
})

test('where its reach stood on the screen, in the same form, only what takes something is asked about', async () => {
  const some = command('some')
  await some.preview({ n: 1 })
  await some.run({ n: 1 })
  expect(some.sent).toEqual(['look 1', 'do 1'])
  await some.preview({ n: 2 })
  const other = some.run({ n: 3 })
  await flushPromises()
  expect(some.sent.slice(2)).toEqual(['look 2', 'look 3'])
  leaveAsked()
  await expect(other).rejects.toBeInstanceOf(LeftAsItIs)

  // Whoever goes on typing while it is looked at is asked about what they typed.
  const typing = command('some')
  const form = { n: 1 }
  const early = typing.preview(form)
  form.n = 2
  await early
  const typed = typing.run(form)
  await flushPromises()
  expect(typing.sent).toEqual(['look 1', 'look 2'])
  form.n = 3
  asked.value!.settle(true)
  await typed
  expect(typing.sent.at(-1)).toBe('do 2')

  const takes = command('takes')
  await takes.preview({ n: 1 })
  const done = takes.run({ n: 1 })
  await flushPromises()
  expect(takes.sent).toEqual(['look 1'])
  asked.value!.settle(true)
  await done
  expect(takes.sent).toEqual(['look 1', 'do 1'])
})
