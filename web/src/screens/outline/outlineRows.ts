import type { Schemas } from '../../foundation/api/client'
import { type Levels } from '../../foundation/levels'
import { counted } from '../../foundation/words'

type Outline = Schemas['OutlineAnswer']
export type ItemRow = Schemas['OutlineItem']
type Unit = Schemas['OutlineUnit']
type Lesson = Schemas['OutlineLesson']

/** One row of the outline, with where it stands. */
export type Row =
  | { level: 'unit'; key: string; unit: Unit; words: string }
  | { level: 'lesson'; key: string; lesson: Lesson; unit: Unit; words: string }
  | { level: 'item'; key: string; item: ItemRow; lesson: Lesson | null; unit: Unit; words: string }

const purposes: Record<string, string> = { 'to-read': 'to read', practice: 'practice', 'for-marks': 'for marks' }

const classes = (count: number) => (count === 0 ? 'no class of its own' : counted(count, 'class', 'classes'))

/** The outline from top to bottom: a unit, its lessons, each followed by its items, then the unit's own items. */
export function rowsOf(outline: Outline): Row[] {
  return outline.units.flatMap((unit) => [
    {
      level: 'unit' as const,
      key: `unit-${unit.id}`,
      unit,
      words: [
        classes(unit.classes),
        ...(unit.welcome ? ['always open'] : []),
        ...(unit.lessons.length > 0 && unit.lessons.every((lesson) => lesson.optional) ? ['optional'] : []),
      ].join(', '),
    },
    ...unit.lessons.flatMap((lesson) => [
      { level: 'lesson' as const, key: `lesson-${lesson.id}`, lesson, unit, words: lengthOf(lesson, unit) },
      ...lesson.items.map((item) => rowOf(item, lesson, unit)),
    ]),
    ...unit.items.map((item) => rowOf(item, null, unit)),
  ])
}

/** A lesson's length; that it may be dropped is said where its unit does not say so of all. */
function lengthOf(lesson: Lesson, unit: Unit): string {
  const length = classes(lesson.classes)
  const least = lesson.shortest !== null && lesson.shortest < lesson.classes ? `, at least ${lesson.shortest}` : ''
  return lesson.optional && !unit.lessons.every((one) => one.optional)
    ? `${length}${least}, optional`
    : `${length}${least}`
}

function rowOf(item: ItemRow, lesson: Lesson | null, unit: Unit): Row {
  const purpose = purposes[item.purpose] ?? item.purpose
  return {
    level: 'item',
    key: `item-${item.id}`,
    item,
    lesson,
    unit,
    words: [item.kind, purpose, ...(item.forWhom ? [item.forWhom] : [])].join(', '),
  }
}

export const titleOf = (row: Row) =>
  row.level === 'unit' ? row.unit.title : row.level === 'lesson' ? row.lesson.title : row.item.title

/** The letter of the only section it is of; null: it is of the course. */
export const onlyIn = (row: Row) =>
  row.level === 'unit' ? row.unit.only : row.level === 'lesson' ? row.lesson.only : row.item.only

export const isPublished = (row: Row) =>
  row.level === 'unit' ? row.unit.published : row.level === 'lesson' ? row.lesson.published : row.item.published

/** Why students see nothing of a row, in words; null: they may know of it. */
export function hiddenBy(row: Row, levels: Levels): string | null {
  if (!isPublished(row)) return 'unpublished'
  const behind = row.level === 'item' ? row.item.behind : row.level === 'lesson' && !row.unit.published ? 'unit' : null
  return behind && `published, but its ${behind === 'unit' ? levels.unit.one : levels.lesson.one} is not`
}

/** The items of a unit that are not published, in reading order. */
export const unpublishedOf = (unit: Unit): ItemRow[] =>
  [...unit.lessons.flatMap((lesson) => lesson.items), ...unit.items].filter((item) => !item.published)

/** What the title block says of the whole. */
export function factsOf({ counts }: Outline, levels: Levels): string[] {
  return [
    [levels.unit.counted(counts.units), levels.lesson.counted(counts.lessons), levels.item.counted(counts.items)].join(
      ', ',
    ),
    counts.items === 0
      ? 'nothing to publish yet'
      : counts.unpublished + counts.behind === 0
        ? 'all published'
        : `${counts.unpublished + counts.behind} unseen by students`,
  ]
}

/** Where a condition of a unit or a lesson stands, as it is now. */
export function conditionPlaceOf(row: Exclude<Row, { level: 'item' }>) {
  const { id, lineage, version, only, gate, condition } = row.level === 'unit' ? row.unit : row.lesson
  return { of: row.level, id, lineage, version, only, gate, inWords: condition }
}

/** The items in a unit or a lesson: what waits with it. */
export const insideOf = (row: Exclude<Row, { level: 'item' }>): string[] =>
  (row.level === 'unit'
    ? [...row.unit.lessons.flatMap((lesson) => lesson.items), ...row.unit.items]
    : row.lesson.items
  ).map((item) => item.lineage)
