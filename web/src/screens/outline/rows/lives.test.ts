import { expect, test } from 'vitest'
import type { Schemas } from '../../../foundation/api/client'
import { bandOf, livesOfItems, livesOfLessons, placeOf } from './lives'
import type { Row } from '../outlineRows'

const ORIGIN = '2026-08-31'
const moment = (local: string) => ({ instant: `${local}Z`, local, weekday: '', words: local.slice(5, 10) })
const cell = (more: object) => ({
  ...{ opens: null, due: null, closes: null, hasOpened: false, unresolved: false, held: false },
  ...{ skipped: false, absent: false, students: 24, differs: [], toCheck: [] },
  ...more,
})
const dates = {
  sections: ['A', 'B', 'C', 'D'].map((letter, n) => ({ id: n + 1, letter, name: `9 ${letter}` })),
  units: [
    {
      items: [
        {
          item: 46,
          published: true,
          cells: [
            cell({ opens: moment('2026-09-02T12:00:00'), due: moment('2026-09-09T12:00:00') }),
            cell({ opens: moment('2026-11-02T00:00:00'), held: true }),
            cell({ skipped: true, opens: moment('2026-09-02T12:00:00') }),
            cell({ absent: true }),
          ],
        },
      ],
    },
  ],
} as unknown as Schemas['DatesAnswer']
const lives = livesOfItems(dates, ORIGIN, 38).get('item-46')!

test('a moment is a place in days from the Monday of the first week', () => {
  expect(placeOf('2026-08-31T00:00:00', ORIGIN)).toBe(0)
  expect(placeOf('2026-09-01T12:00:00', ORIGIN)).toBe(1.5)
})

test('an item runs from its opening to its due date, open once that is past', () => {
  expect(lives.map(({ from, to, open, held }) => [from, to, open, held])).toEqual([
    [2.5, 9.5, true, false],
    [63, null, false, true],
    [null, null, false, false],
    [null, null, false, false],
  ])
})

test('the same stands in words, for whoever cannot see lines', () => {
  expect(lives.map((life) => life.words)).toEqual([
    '9 A opens 09-02, due 09-09',
    '9 B keeps it back, opens 11-02',
    '9 C drops it',
    '9 D does not have it',
  ])
  expect(lives.map((life) => life.dates)).toEqual(['2 Sep · due 9 Sep', '2 Nov', 'dropped', ''])
})

test('many sections become one band, with those that differ', () => {
  expect(bandOf(lives)).toMatchObject({ from: 2.5, to: 63, opens: [2.5, 63], open: 1, differs: [{ letter: 'B' }] })
  expect(bandOf(lives.slice(2))).toBeNull()
})

test('a unit runs from the first class of its lessons to the end of the last', () => {
  const run = (lesson: number, starts: string | null, ends: string | null) => ({
    lesson,
    skipped: false,
    starts: starts && moment(starts),
    ends: ends && moment(ends),
  })
  const pace = {
    sections: [
      {
        letter: 'A',
        name: '9 A',
        lessons: [
          run(1, '2026-09-01T00:00:00', '2026-09-01T12:00:00'),
          run(2, '2026-09-03T00:00:00', '2026-09-04T00:00:00'),
        ],
      },
      { letter: 'B', name: '9 B', lessons: [run(1, null, null)] },
    ],
  } as unknown as Schemas['PaceAnswer']
  const rows = [{ level: 'unit', key: 'unit-5', unit: { lessons: [{ id: 1 }, { id: 2 }] } }] as unknown as Row[]
  const [first, second] = livesOfLessons(pace, rows, ORIGIN, 2).get('unit-5')!
  expect([first!.from, first!.to, first!.open]).toEqual([1, 4, true])
  expect(second!.words).toBe('9 B has no class for it')
})
