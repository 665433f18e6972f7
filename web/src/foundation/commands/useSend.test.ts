// @vitest-environment jsdom
import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { expect, test } from 'vitest'
import { createApp } from 'vue'
import { ProblemError } from '../api/client'
import { useSend } from './useSend'

const refusal = (status: number, field?: string) =>
  new ProblemError({ status, code: 'x', title: 'Not so.', detail: '', field })

function sending(answers: (string | Error)[]) {
  const keys: string[] = []
  const client = new QueryClient()
  client.setQueryData(['places'], 1)
  let used!: ReturnType<typeof useSend<string, string>>
  const app = createApp({
    setup() {
      used = useSend(
        (_: string, key) => {
          keys.push(key)
          const next = answers.shift()!
          return typeof next === 'string' ? Promise.resolve(next) : Promise.reject(next)
        },
        [['places']],
      )
      return () => null
    },
  })
  app.use(VueQueryPlugin, { queryClient: client }).mount(document.createElement('div'))
  return { used, keys, isOld: () => client.getQueryState(['places'])?.isInvalidated }
}

test('after a lost connection the same is sent under the same key, and something else under another', async () => {
  const { used, keys } = sending([refusal(0), 'done', 'done', 'done'])
  expect(await used.run('a')).toBeNull()
  expect(used.general.value?.title).toBe('Not so.')
  expect(await used.run('a')).toBe('done')
  await used.run('a')
  await used.run('b')
  expect(keys[1]).toBe(keys[0])
  expect(new Set(keys).size).toBe(3)
})

test('what is wrong is told at its field, and once it is done what it changes is read anew', async () => {
  const { used, keys, isOld } = sending([refusal(422, 'name'), 'done'])
  await used.run('a')
  expect([used.wrong('name'), used.wrong('email'), used.general.value]).toEqual(['Not so.', null, null])
  expect(isOld()).toBe(false)
  await used.run('a')
  expect([used.problem.value, isOld()]).toEqual([null, true])
  expect(keys[1]).not.toBe(keys[0])
})
