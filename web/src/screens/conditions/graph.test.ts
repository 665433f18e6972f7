import { expect, test } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import { arrowsOf, causesOf, countOf, countWords, shownOf, standOf, waitsOf, wayOf } from './graph'

const moment = (local: string) => ({ local, at: `${local}Z`, words: local }) as unknown as Schemas['Moment']
const place = (key: string, unit: string, standing: Partial<Schemas['StandingInSection']>[] = []) =>
  ({
    key,
    of: 'item',
    id: Number(key.slice(1)),
    code: key,
    title: `Item ${key}`,
    unit,
    condition: null,
    gate: null,
    isHidden: false,
    version: 1,
    standing: standing.map((one, n) => ({
      section: n + 1,
      before: [],
      at: [],
      past: [],
      missed: [],
      forFeedback: [],
      ...one,
    })),
  }) as Schemas['ConditionPlace']
const answer = {
  places: [
    place('i1', 'One', [{ at: [11], past: [12] }, { past: [21] }]),
    place('i2', 'One', [
      { before: [11, 12], forFeedback: [{ student: 12, piece: 1, since: moment('2026-10-02T09:00') }] },
      { at: [21], missed: [22] },
    ]),
    place('i3', 'Two', [{ before: [11, 12] }, { before: [21] }]),
    place('i4', 'Three'),
  ],
  arrows: [
    { from: 'i1', to: 'i2', asks: 'given back' },
    { from: 'i2', to: 'i3', asks: 'handed in' },
    { from: 'i1', to: 'i3', asks: 'opened' },
  ],
} as unknown as Schemas['ConditionsAnswer']

test('a unit is shown with what leads there and what comes from it', () => {
  expect(shownOf(answer, { unit: 'Two', folded: false }).map((one) => one.key)).toEqual(['i1', 'i2', 'i3'])
  expect(shownOf(answer, { unit: null, folded: false })).toHaveLength(4)
})

test('folded, units are one each, and what leads from one to another is counted', () => {
  const shown = shownOf(answer, { unit: null, folded: true })
  expect(shown.map((one) => [one.title, one.places.length])).toEqual([
    ['One', 2],
    ['Two', 1],
    ['Three', 1],
  ])
  expect(arrowsOf(answer, shown)).toEqual([{ from: 'unit One', to: 'unit Two', asks: '2 conditions' }])
})

test('students are counted in the sections in view, those who wait for feedback first', () => {
  const second = answer.places[1]!
  expect(countOf(second, new Set([1]))).toMatchObject({ before: 2, at: 0, missed: 0, forFeedback: 1 })
  expect(countWords(second, countOf(second, new Set([1, 2])))).toBe(
    '1 wait for feedback · 1 before · 1 at it · 1 missed it',
  )
  expect(countWords(answer.places[3]!, countOf(answer.places[3]!, new Set([1])))).toBe('for nobody here')
  expect(waitsOf(answer, new Set([1])).map((one) => [one.place.key, one.students.length])).toEqual([['i2', 1]])
  expect(waitsOf(answer, new Set([2]))).toEqual([])
})

test('one student’s way is what they have done and what is open to them', () => {
  expect([...wayOf(answer, 21)]).toEqual(['i1', 'i2'])
  expect(standOf(answer.places[2]!, 21)).toBe('before')
  expect(standOf(answer.places[3]!, 21)).toBeNull()
})

test('causes are followed back through all that leads to a place, circles too', () => {
  expect(causesOf(answer.arrows, 'i3')).toEqual(new Set(['i3', 'i2', 'i1']))
  expect(causesOf([...answer.arrows, { from: 'i3', to: 'i1', asks: '' }], 'i2')).toEqual(new Set(['i2', 'i1', 'i3']))
})
