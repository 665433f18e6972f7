import { describe, expect, it } from 'vitest'
import { dateNear, differenceOf, lastingWords, lengthTo } from './paceDrag'

const one = (ordinal: number, at: number, counts = 1) => ({
  ordinal,
  at,
  counts,
  date: `day ${Math.floor(at)}`,
  words: `Day ${Math.floor(at)}, 08:40`,
})
const section = { id: 7, classes: [one(1, 0.36), one(2, 2.44), one(3, 4.4), one(4, 7.36, 2)] } as never
const run = { lesson: 30, from: 2.44, to: 2.48, pinVersion: 3, lengthVersion: 0 } as never

describe('a lesson taken by its beginning', () => {
  it('is fixed to the class nearest to the pointer', () => {
    expect(dateNear(section, 2.9)).toEqual({ date: 'day 2', at: 2.44, words: 'is fixed to Day 2' })
    expect(dateNear(section, 60)).toEqual({ date: 'day 7', at: 7.36, words: 'is fixed to Day 7' })
    expect(dateNear({ id: 7, classes: [] } as never, 3)).toBeNull()
  })
})

describe('a lesson taken by its end', () => {
  it('lasts as many classes as the pointer has passed, at least one, a double one twice', () => {
    expect([1, 2.5, 4.3, 4.5, 8].map((at) => lengthTo(section, run, at).length)).toEqual([1, 1, 1, 2, 4])
  })
})

it('is asked for as a difference of its section, or put back', () => {
  expect(differenceOf(section, run, { field: 'pin', value: '2026-10-12' }).changes).toEqual([
    { section: 7, of: 'lesson', target: 30, field: 'pin', putBack: false, value: '2026-10-12', version: 3 },
  ])
  expect(differenceOf(section, run, { field: 'length', value: null }).changes[0]).toMatchObject({
    putBack: true,
    version: 0,
  })
  expect([lastingWords(1, 'classes'), lastingWords(50, 'minutes')]).toEqual(['lasts 1 class', 'lasts 50 minutes'])
})
