import { expect, test } from 'vitest'
import { dropOn, nudge } from './outlineMoves'
import { type Row, rowsOf } from './outlineRows'
import { anchorOf, choiceOf } from '../../parts/timing/timing'

test.each([
  [null],
  [{ at: 'lesson-start' }],
  [{ at: 'lesson-end' }],
  [{ at: 'lesson-end', meetings: 2, clock: 'meeting-start' }],
  [{ at: 'lesson-end', days: 7, clock: '18:00' }],
  [{ at: 'fixed', date: '2026-10-12', time: '12:00' }],
])('a timing is the choice it came from: %j', (anchor) => {
  expect(anchorOf(choiceOf(anchor))).toEqual(anchor)
})

test('a timing that says more than the choices is left as it is', () => {
  expect(choiceOf({ at: 'lesson-end', of: 'l1', meetings: 1 }).kind).toBe('other')
  expect(anchorOf(choiceOf({ at: 'unit-end' }))).toBeUndefined()
  expect(anchorOf({ kind: 'on-date', count: 1, date: '', time: '12:00' })).toBeUndefined()
})

const item = (id: number) => ({
  id,
  lineage: `i${id}`,
  code: '',
  kind: 'page',
  purpose: 'to-read',
  title: `Item ${id}`,
  published: true,
  behind: null,
  opensAt: null,
  opens: null,
  forWhom: null,
  due: null,
  condition: null,
  options: [],
  hasText: false,
  differs: [],
  only: null,
  version: 1,
})
const lesson = (id: number, ...items: number[]) => ({
  id,
  lineage: `l${id}`,
  title: `Lesson ${id}`,
  classes: 1,
  optional: false,
  shortest: null,
  differs: [],
  only: null,
  published: true,
  condition: null,
  gate: null,
  version: 1,
  items: items.map(item),
})
const unit = (id: number, lessons: ReturnType<typeof lesson>[], ...own: number[]) => ({
  id,
  lineage: `u${id}`,
  number: id,
  before: null,
  welcome: false,
  only: null,
  title: `Unit ${id}`,
  published: true,
  classes: 1,
  condition: null,
  gate: null,
  version: 1,
  lessons,
  items: own.map(item),
})
const rows = rowsOf({
  edition: 1,
  version: 1,
  course: '',
  title: '',
  state: 'current',
  canChange: true,
  sections: [],
  settings: {
    codes: 'by-unit',
    codesFixed: false,
    before: 'listed',
    version: 1,
    name: { title: 'Weather', subject: '', version: 1 },
  },
  counts: { units: 2, lessons: 3, items: 4, unpublished: 0, behind: 0 },
  units: [unit(1, [lesson(11, 101, 102), lesson(12)], 103), unit(2, [lesson(21, 201)])],
})
const row = (key: string): Row => rows.find((one) => one.key === key)!

test('a row goes after one of its kind, or first into what holds it', () => {
  expect(dropOn(row('item-101'), row('item-201'))?.request).toMatchObject({ unit: 2, lesson: 21, after: 201 })
  expect(dropOn(row('item-101'), row('lesson-12'))?.request).toMatchObject({ unit: 1, lesson: 12, after: null })
  expect(dropOn(row('item-101'), row('unit-2'))?.request).toMatchObject({ unit: 2, lesson: null, after: null })
  expect(dropOn(row('lesson-11'), row('lesson-21'))?.request).toMatchObject({ unit: 2, after: 21 })
  expect(dropOn(row('lesson-11'), row('item-201'))).toBeNull()
  expect(dropOn(row('unit-2'), row('unit-1'))?.request).toMatchObject({ after: 1 })
})

test('by keys it goes one place on, and over the edge into the next lesson or unit', () => {
  expect(nudge(rows, row('item-101'), 1)?.request).toMatchObject({ lesson: 11, after: 102 })
  expect(nudge(rows, row('item-102'), 1)?.request).toMatchObject({ unit: 1, lesson: 12, after: null })
  expect(nudge(rows, row('item-103'), -1)?.request).toMatchObject({ unit: 1, lesson: 12, after: null })
  expect(nudge(rows, row('item-101'), -1)).toBeNull()
  expect(nudge(rows, row('lesson-12'), -1)?.request).toMatchObject({ unit: 1, after: null })
  expect(nudge(rows, row('lesson-21'), -1)?.request).toMatchObject({ unit: 1, after: 12 })
  expect(nudge(rows, row('lesson-12'), 1)?.request).toMatchObject({ unit: 2, after: null })
  expect(nudge(rows, row('unit-2'), -1)?.request).toMatchObject({ after: null })
  expect(nudge(rows, row('unit-2'), 1)).toBeNull()
})
