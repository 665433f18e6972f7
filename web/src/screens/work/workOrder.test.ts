import { expect, test } from 'vitest'
import { inOrder, lain, standing } from './workOrder'

const piece = (name: string, code: string, at: string, more: object = {}) =>
  ({
    name,
    code,
    handedInAt: { instant: at },
    work: 1,
    n: 1,
    frees: [],
    late: null,
    back: null,
    ...more,
  }) as never

const all = [
  piece('Uma', '2.9', '2026-10-06T10:00:00Z', { frees: ['3.08', '3.09'] }),
  piece('Aino', '2.17', '2026-10-02T10:00:00Z'),
  piece('Bo', '1.2', '2026-10-05T10:00:00Z', { back: { again: false } }),
  piece('Bashir', '2.9', '2026-10-03T10:00:00Z', { n: 2 }),
]
const names = (order: Parameters<typeof inOrder>[1]) => inOrder(all, order).map((one) => one.name)

test('what waits comes first, in the order that is asked for', () => {
  expect(names('frees')).toEqual(['Uma', 'Aino', 'Bashir', 'Bo'])
  expect(names('oldest')).toEqual(['Aino', 'Bashir', 'Uma', 'Bo'])
  expect(names('item')).toEqual(['Uma', 'Bashir', 'Aino', 'Bo'])
  expect(names('name')).toEqual(['Aino', 'Bashir', 'Uma', 'Bo'])
})

test('a row says only what is not as usual', () => {
  expect(all.map((one) => standing(one).words)).toEqual(['frees 3.08 …', '', 'given back', '2nd try'])
  expect(standing(piece('Ada', '1', '', { late: '2 days late' })).words).toBe('late')
  expect(standing(piece('Ada', '1', '', { work: null })).words).toBe('came too late')
  expect([lain(0), lain(3)]).toEqual(['today', '3 d'])
})

test('an attempt at a quiz waits like any other piece, though nothing of it was handed in as work', () => {
  const attempt = piece('Cleo', '1.12', '2026-10-01T10:00:00Z', { work: null, n: 2, quiz: { answers: [] } })
  expect(inOrder([...all, attempt], 'oldest').map((one) => one.name)).toEqual(['Cleo', 'Aino', 'Bashir', 'Uma', 'Bo'])
  expect(standing(attempt).words).toBe('2nd try')
  const read = piece('Cleo', '1.12', '2026-10-01T10:00:00Z', {
    work: null,
    quiz: { answers: [] },
    back: { again: false },
  })
  expect(standing(read).words).toBe('read')
})
