import { expect, test } from 'vitest'
import { plainLevels } from '../../foundation/levels'
import { between, homesOf, inView, stretch, viewOf, withTaken } from './outlineView'
import type { Row } from './outlineRows'

const item = (id: number, code: string, title: string, more: object = {}) => ({
  ...{
    id,
    code,
    title,
    published: true,
    behind: null,
    only: null,
    differs: [],
    condition: null,
    due: null,
    hasText: true,
  },
  ...more,
})
const unit = { id: 1, number: 3, title: 'Clouds', published: true, only: null, lessons: [], items: [] }
const lesson = { id: 7, title: 'The ten families', published: true, only: null, differs: ['B'], items: [] }
const rowOf = (one: ReturnType<typeof item>, on: typeof lesson | null) => ({
  level: 'item',
  key: `item-${one.id}`,
  item: one,
  lesson: on,
  unit,
  words: 'task, practice',
})
const rows = [
  { level: 'unit', key: 'unit-1', unit, words: '7 classes' },
  { level: 'lesson', key: 'lesson-7', lesson, unit, words: '1 class' },
  rowOf(item(10, '3.01', 'What a cloud is', { hasText: false }), lesson),
  rowOf(item(11, '3.03', 'Cloud diary', { due: 'a week later', condition: 'Opens when …' }), lesson),
  rowOf(item(12, '3.20', 'What we know', { published: false }), null),
] as unknown as Row[]
const keys = (view: object, folded: string[] = []) =>
  inView(rows, { ...viewOf({}), ...view }, new Set(folded), plainLevels).map((row) => row.key)

test('what is in a folded row is not shown, and everything is again once it is unfolded', () => {
  expect(keys({}, ['lesson-7'])).toEqual(['unit-1', 'lesson-7', 'item-12'])
  expect(keys({}, ['unit-1'])).toEqual(['unit-1'])
  expect(keys({})).toHaveLength(5)
})

test('what is looked for is shown with what holds it, folded or not', () => {
  expect(keys({ words: 'diary' }, ['unit-1'])).toEqual(['unit-1', 'lesson-7', 'item-11'])
  expect(keys({ words: '3.20' })).toEqual(['unit-1', 'item-12'])
  expect(keys({ words: 'zebra' })).toEqual([])
})

test.each([
  ['unpublished', ['unit-1', 'item-12']],
  ['condition', ['unit-1', 'lesson-7', 'item-11']],
  ['due', ['unit-1', 'lesson-7', 'item-11']],
  ['differs', ['unit-1', 'lesson-7']],
  ['no-text', ['unit-1', 'lesson-7', 'item-10']],
])('only what is %s', (only, shown) => expect(keys({ only })).toEqual(shown))

test('a unit or lesson is taken with all that is in it, and is whole only while all of that is chosen', () => {
  const none = new Set<string>()
  const lesson = withTaken(rows, none, none, [rows[1]!], true)
  expect([...lesson]).toEqual(['lesson-7', 'item-10', 'item-11'])
  expect([...withTaken(rows, none, lesson, [rows[2]!], false)]).toEqual(['item-11'])
  const unit = withTaken(rows, none, none, [rows[0]!], true)
  expect(unit.size).toBe(5)
  expect([...withTaken(rows, none, unit, [rows[2]!], false)]).toEqual(['item-11', 'item-12'])
  expect([...withTaken(rows, new Set(['item-12']), none, [rows[0]!], true)]).toEqual(['lesson-7', 'item-10', 'item-11'])
})

test('from one row to another all between are taken, and a home only where it ends within', () => {
  expect(stretch(rows, 'item-11', 'lesson-7').map((row) => row.key)).toEqual(['lesson-7', 'item-10', 'item-11'])
  expect(stretch(rows, 'lesson-7', 'item-10').map((row) => row.key)).toEqual(['item-10'])
  expect(between(rows, 'item-12', 'item-10')).toEqual(['item-10', 'item-11', 'item-12'])
  expect(between(rows, 'gone', 'item-10')).toEqual(['item-10'])
  expect(homesOf(rows[4]!)).toEqual(['unit-1'])
})

test('an address asks for a view; what it does not know shows everything', () => {
  expect(viewOf({ words: 'cloud', only: 'due' })).toEqual({ words: 'cloud', only: 'due' })
  expect(viewOf({ words: ['a', 'b'], only: 'toString' })).toEqual({ words: '', only: '' })
  expect(viewOf({ words: 'x'.repeat(300) }).words).toHaveLength(200)
})
