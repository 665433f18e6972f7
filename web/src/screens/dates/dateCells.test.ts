import { expect, test } from 'vitest'
import { changesOf } from './dateCells'

const cell = (version?: number) => ({
  opens: null,
  due: null,
  closes: null,
  unresolved: false,
  held: false,
  skipped: false,
  differs: version === undefined ? [] : [{ field: 'due', version, course: null }],
})
const section = (id: number) => ({ id, name: `S${id}`, letter: 'A', students: 1, classes: 1, lacking: 0, toCheck: [] })
const answer = {
  edition: 1,
  version: 1,
  canChange: true,
  differences: 1,
  toCheck: 0,
  sections: [section(7), section(8)],
  units: [
    {
      number: 1,
      title: 'One',
      items: [
        {
          item: 5,
          code: '1.01',
          title: 'Log',
          kind: 'task',
          published: true,
          opens: null,
          due: null,
          cells: [cell(), cell(3)],
        },
      ],
    },
  ],
}
const place = { item: 5, section: 7, field: 'due' as const }

test('a date for some sections names for each what was read there', () => {
  const to = { date: '2026-10-12', time: '12:00' }
  expect(changesOf(place, answer, [7, 8], to).map((one) => [one.section, one.version, one.putBack])).toEqual([
    [7, 0, false],
    [8, 3, false],
  ])
  expect(changesOf(place, answer, [7], to)[0]?.value).toEqual({ at: 'fixed', ...to })
})

test('putting back concerns only sections that differ', () => {
  expect(changesOf(place, answer, [7, 8], null).map((one) => one.section)).toEqual([8])
})
