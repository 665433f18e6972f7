import { expect, test } from 'vitest'
import { type Answer, cellWords, countOf, linesOf, shownItems } from './scoreLines'

const cell = (words: string, points: string | null = null, percent: string | null = null) => ({
  tone: 'score' as const,
  words,
  points,
  percent,
  late: null,
})
const student = (name: string, ...cells: ReturnType<typeof cell>[]) => ({ student: 1, name, cells, soFar: null })
const item = (code: string, purpose: string, outOf: string | null) => ({
  item: 1,
  code,
  title: code,
  unit: 'u',
  kind: 'task',
  purpose,
  outOf,
})
const answer = {
  items: [item('1.01', 'for-marks', 'of 10'), item('1.02', 'practice', 'of 5'), item('1.03', 'for-marks', null)],
  sections: [
    {
      section: 7,
      name: '9 Alder',
      letter: 'A',
      spreads: [null, null, null],
      students: [
        student('Aino', cell('given back', '8', '80.0 %'), cell('overdue'), cell('seen')),
        student('Bashir', cell('overdue'), cell('overdue'), cell('to come')),
      ],
    },
  ],
} as unknown as Answer

test('items are for marks, scored, or all', () => {
  expect(shownItems(answer, 'for-marks')).toEqual([0, 2])
  expect(shownItems(answer, 'scored')).toEqual([0, 1])
  expect(shownItems(answer, 'all')).toEqual([0, 1, 2])
})

test('how sections went stands side by side above their students', () => {
  const two = [answer.sections[0]!, { ...answer.sections[0]!, name: '9 Birch' }]
  expect(linesOf(two).map((line) => ('student' in line ? line.student.name : line.section.name))).toEqual([
    '9 Alder',
    '9 Birch',
    'Aino',
    'Bashir',
    'Aino',
    'Bashir',
  ])
})

test('a cell tells points, per cent or how it stands, and how it stands where there is no score', () => {
  const [scored, overdue] = answer.sections[0]!.students[0]!.cells
  expect((['points', 'percent', 'state'] as const).map((told) => cellWords(scored!, told))).toEqual([
    '8',
    '80.0 %',
    'given back',
  ])
  expect(cellWords(overdue!, 'points')).toBe('overdue')
  // A level without a percentage is told by its words.
  expect(cellWords(cell('given back', 'nearly there') as never, 'percent')).toBe('nearly there')
})

test('only what is shown is counted', () => {
  expect(countOf(answer.sections, [0, 2], 'overdue')).toBe(1)
  expect(countOf(answer.sections, [0, 1, 2], 'overdue')).toBe(3)
})
