import { expect, test } from 'vitest'
import { plainLevels } from '../../foundation/levels'
import { factsOf, hiddenBy, rowsOf } from './outlineRows'

const item = (id: number, kind: string, purpose: string) => ({
  id,
  lineage: `i${id}`,
  opens: null,
  forWhom: null,
  due: null,
  condition: null,
  options: [],
  hasText: false,
  differs: [],
  only: null,
  code: `1.0${id}`,
  kind,
  purpose,
  title: `Item ${id}`,
  published: id !== 2,
  behind: null,
  opensAt: null,
  version: 1,
})
const lesson = (id: number, classes: number, optional: boolean, items: ReturnType<typeof item>[]) => ({
  id,
  lineage: `l${id}`,
  version: 1,
  title: `Lesson ${id}`,
  classes,
  optional,
  shortest: classes > 2 ? 1 : null,
  differs: [],
  only: null,
  published: true,
  condition: null,
  gate: null,
  items,
})
const outline = {
  edition: 1,
  version: 7,
  course: 'Weather Watch',
  title: 'edition 2026',
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
  counts: { units: 1, lessons: 2, items: 3, unpublished: 1, behind: 0 },
  units: [
    {
      id: 5,
      lineage: 'u5',
      version: 1,
      number: 1,
      only: null,
      before: null,
      welcome: false,
      title: 'Looking up',
      published: true,
      classes: 1,
      condition: null,
      gate: null,
      lessons: [
        lesson(8, 1, false, [item(1, 'page', 'to-read'), item(2, 'task', 'for-marks')]),
        lesson(9, 0, true, []),
      ],
      items: [item(3, 'quiz', 'practice')],
    },
  ],
}

test('rows follow the reading order: lessons with their items, then the items of the unit itself', () => {
  expect(rowsOf(outline).map((row) => row.key)).toEqual([
    'unit-5',
    'lesson-8',
    'item-1',
    'item-2',
    'lesson-9',
    'item-3',
  ])
})

test('what a row is stands in words', () => {
  expect(rowsOf(outline).map((row) => row.words)).toEqual([
    '1 class',
    '1 class',
    'page, to read',
    'task, for marks',
    'no class of its own, optional',
    'quiz, practice',
  ])
})

test('a unit is called optional only where all its lessons are', () => {
  const [unit] = outline.units
  if (!unit) throw new Error('the example has a unit')
  const optional = { ...outline, units: [{ ...unit, lessons: [lesson(9, 2, true, [])], classes: 2 }] }
  expect(
    rowsOf(optional)
      .slice(0, 2)
      .map((row) => row.words),
  ).toEqual(['2 classes, optional', '2 classes'])
  const shorter = {
    ...outline,
    units: [{ ...unit, lessons: [lesson(9, 3, true, []), lesson(8, 1, false, [])], classes: 4 }],
  }
  expect(rowsOf(shorter)[1]?.words).toBe('3 classes, at least 1, optional')
})

test('the title block counts, and says how many students see nothing of', () => {
  expect(factsOf(outline, plainLevels)).toEqual(['1 unit, 2 lessons, 3 items', '1 unseen by students'])
  expect(factsOf({ ...outline, counts: { ...outline.counts, unpublished: 0 } }, plainLevels)[1]).toBe('all published')
  const empty = { units: 0, lessons: 0, items: 0, unpublished: 0, behind: 0 }
  expect(factsOf({ ...outline, counts: empty }, plainLevels)[1]).toBe('nothing to publish yet')
})

test('a row says what students see of it, not what its own field says', () => {
  const hidden = (behind: string | null, published = true) =>
    hiddenBy(
      {
        level: 'item',
        key: 'item-1',
        item: { ...item(1, 'page', 'to-read'), published, behind },
        lesson: null,
        unit: outline.units[0]!,
        words: '',
      },
      plainLevels,
    )
  expect([hidden(null), hidden(null, false), hidden('unit'), hidden('lesson')]).toEqual([
    null,
    'unpublished',
    'published, but its unit is not',
    'published, but its lesson is not',
  ])
})
