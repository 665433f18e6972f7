import { expect, test } from 'vitest'
import { plainLevels } from '../../../foundation/levels'
import { kindUnder, placeUnder, readTitle } from './newRow'
import { putUnder } from '../outlineMoves'
import type { Row } from '../outlineRows'

const unit = { id: 1, title: 'Clouds', version: 4, lessons: [{ id: 7 }, { id: 8 }], items: [{ id: 30 }] }
const lesson = { id: 7, title: 'Families', version: 2, items: [{ id: 10 }, { id: 11 }] }
const unitRow = { level: 'unit', key: 'unit-1', unit } as unknown as Row
const lessonRow = { level: 'lesson', key: 'lesson-7', lesson, unit } as unknown as Row
const onLesson = { level: 'item', key: 'item-10', item: { id: 10, version: 3 }, lesson, unit } as unknown as Row
const onUnit = { level: 'item', key: 'item-30', item: { id: 30 }, lesson: null, unit } as unknown as Row

test.each([
  ['q: Which storey?', 'quiz', 'Which storey?'],
  ['Task: Cloud diary', 'task', 'Cloud diary'],
  ['l: Naming', 'link', 'Naming'],
  ['lesson: Naming', 'lesson', 'Naming'],
  ['Fog: a study', null, 'Fog: a study'],
  ['  Plain ', null, 'Plain'],
])('“%s” is read for its kind', (written, kind, title) => {
  expect(readTitle(written, plainLevels)).toEqual({ kind, title })
})

test('something new comes to stand under the row it was written under', () => {
  expect(placeUnder(onLesson, 'task')).toEqual({ of: 'item', unit: 1, lesson: 7, after: 10, first: false })
  expect(placeUnder(lessonRow, 'page')).toEqual({ of: 'item', unit: 1, lesson: 7, after: null, first: true })
  expect(placeUnder(onUnit, 'lesson')).toEqual({ of: 'lesson', unit: 1, after: 8 })
  expect(placeUnder(lessonRow, 'lesson')).toEqual({ of: 'lesson', unit: 1, after: 7 })
  expect(placeUnder(onLesson, 'unit')).toEqual({ of: 'unit', after: 1 })
  expect(kindUnder({ level: 'unit', unit: { lessons: [] } } as unknown as Row)).toBe('lesson')
})

test('a row dropped under another goes after its own kind, or first into what it is put under', () => {
  const other = { level: 'lesson', key: 'lesson-8', lesson: { id: 8, version: 5 }, unit } as unknown as Row
  expect(putUnder(other, onLesson)).toEqual({ of: 'lesson', request: { lesson: 8, unit: 1, after: 7, version: 5 } })
  expect(putUnder(onLesson, lessonRow)?.request).toMatchObject({ item: 10, lesson: 7, after: null })
  expect(putUnder(onLesson, onLesson)).toBeNull()
  expect(putUnder(onLesson, null)).toBeNull()
  expect(putUnder(unitRow, null)).toEqual({ of: 'unit', request: { unit: 1, after: null, version: 4 } })
  expect(putUnder(unitRow, onLesson)).toBeNull()
})
