import type { Schemas } from '../../foundation/api/client'

type Outline = Schemas['OutlineAnswer']
export type ItemRow = Schemas['OutlineItem']

/** One row of the outline. */
export type Row =
  | { level: 'unit'; key: string; number: number; title: string; words: string; published: boolean }
  | { level: 'lesson'; key: string; title: string; words: string; published: boolean }
  | { level: 'item'; key: string; item: ItemRow; inLesson: boolean; words: string }

const purposes: Record<string, string> = { 'to-read': 'to read', practice: 'practice', 'for-marks': 'for marks' }

export const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`
const classes = (count: number) => (count === 0 ? 'no class of its own' : counted(count, 'class', 'classes'))

/** The outline from top to bottom: a unit, its lessons, each followed by its items, then the unit's own items. */
export function rowsOf(outline: Outline): Row[] {
  return outline.units.flatMap((unit) => [
    {
      level: 'unit' as const,
      key: `unit-${unit.id}`,
      number: unit.number,
      title: unit.title,
      words: [
        classes(unit.classes),
        ...(unit.lessons.length > 0 && unit.lessons.every((lesson) => lesson.optional) ? ['optional'] : []),
      ].join(', '),
      published: unit.published,
    },
    ...unit.lessons.flatMap((lesson) => [
      {
        level: 'lesson' as const,
        key: `lesson-${lesson.id}`,
        title: lesson.title,
        words: classes(lesson.classes),
        published: lesson.published,
      },
      ...lesson.items.map((item) => rowOf(item, true)),
    ]),
    ...unit.items.map((item) => rowOf(item, false)),
  ])
}

function rowOf(item: ItemRow, inLesson: boolean): Row {
  const purpose = purposes[item.purpose] ?? item.purpose
  return { level: 'item', key: `item-${item.id}`, item, inLesson, words: `${item.kind}, ${purpose}` }
}

/** What the title block says of the whole. */
export function factsOf({ counts }: Outline): string[] {
  return [
    [
      counted(counts.units, 'unit', 'units'),
      counted(counts.lessons, 'lesson', 'lessons'),
      counted(counts.items, 'item', 'items'),
    ].join(', '),
    counts.unpublished === 0 ? 'all published' : `${counts.unpublished} unpublished`,
  ]
}
