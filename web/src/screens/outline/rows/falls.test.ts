import { expect, test } from 'vitest'
import type { Schemas } from '../../../foundation/api/client'
import { fallsOf } from './falls'
import type { Row } from '../outlineRows'

const run = (lesson: number, from: string | null, to: string | null, more: Partial<Schemas['PaceRun']> = {}) => ({
  lesson,
  starts: from && { words: from },
  ends: to && { words: to },
  classes: from ? `class ${lesson}` : '',
  skipped: false,
  overflow: from ? 0 : 1,
  ...more,
})
const pace = {
  sections: [
    { letter: 'A', name: '9 Alder', lessons: [run(1, 'Mon 7 Sep', 'Mon 7 Sep'), run(2, 'Wed 9 Sep', 'Fri 11 Sep')] },
    { letter: 'B', name: '9 Birch', lessons: [run(1, 'Tue 8 Sep', 'Tue 8 Sep', { overflow: 1 }), run(2, null, null)] },
    { letter: 'C', name: '9 Cedar', lessons: [run(1, null, null, { skipped: true }), run(2, null, null)] },
  ],
} as unknown as Schemas['PaceAnswer']
const lesson = (id: number) => ({ id, differs: id === 1 ? ['C'] : [] })
const row = (level: string, lessons: number[]) =>
  ({ level, lesson: lesson(lessons[0]!), unit: { lessons: lessons.map(lesson) } }) as unknown as Exclude<
    Row,
    { level: 'item' }
  >
const cells = (level: string, lessons: number[]) => fallsOf(pace, row(level, lessons)).map((one) => one.cells)

test('a lesson says in every section when it falls, whether it fits and where it is dropped', () => {
  expect(cells('lesson', [1])).toEqual([
    ['Mon 7 Sep', 'Mon 7 Sep', 'class 1'],
    ['Tue 8 Sep', 'Tue 8 Sep', 'class 1, not whole'],
    ['dropped here', '–', '–'],
  ])
  expect(cells('lesson', [2])[1]).toEqual(['does not fit', '–', '–'])
  expect(cells('lesson', [9])[0]).toEqual(['not here', '–', '–'])
  expect(fallsOf(pace, row('lesson', [1])).map((one) => one.differs)).toEqual([false, false, true])
})

test('a unit falls from its first lesson to its last', () => {
  expect(cells('unit', [1, 2]).slice(0, 2)).toEqual([
    ['Mon 7 Sep', 'Fri 11 Sep', 'whole'],
    ['Tue 8 Sep', 'Tue 8 Sep', 'none of it'],
  ])
})
