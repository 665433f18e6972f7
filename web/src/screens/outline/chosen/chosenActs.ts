import type { Schemas } from '../../../foundation/api/client'
import { type Levels } from '../../../foundation/levels'
import { joined } from '../../../foundation/words'
import { type Row, onlyIn } from '../outlineRows'
import { homesOf } from '../outlineView'

/** What can be done to several rows at once. */
export type Act = 'opens' | 'due' | 'closes' | 'purpose' | 'condition' | 'steps' | 'whom' | 'hold' | 'move'

export const actWords: Record<Act, string> = {
  opens: 'when they open',
  due: 'when they are due',
  closes: 'when they close',
  purpose: 'what they are for',
  condition: 'condition',
  steps: 'one after another',
  whom: 'for whom',
  hold: 'keep back',
  move: 'move',
}

type Request = Schemas['ChangeItemsRequest']
/** What is asked of the chosen rows: one change to all, keeping back in sections, or a condition for each of its own. */
export type Asked = Change | { hold: number[] } | { conditions: Schemas['PlaceCondition'][] }
export type Change = Omit<Request, 'items' | 'lessons' | 'units'>
type ItemOfRow = Extract<Row, { level: 'item' }>

/** The items among the chosen rows. */
export const itemsOf = (chosen: readonly Row[]) =>
  chosen.filter((row): row is ItemOfRow => row.level === 'item').map((row) => row.item)

/** A request to change rows as they were read; what is asked for stands beside them. */
export const requestOf = (chosen: readonly Row[], change: Change): Request => ({
  items: itemsOf(chosen).map((item) => ({ item: item.id, version: item.version })),
  lessons: chosen.flatMap((row) =>
    row.level === 'lesson' ? [{ lesson: row.lesson.id, version: row.lesson.version }] : [],
  ),
  units: chosen.flatMap((row) => (row.level === 'unit' ? [{ unit: row.unit.id, version: row.unit.version }] : [])),
  ...change,
})

/** How many are chosen, in the course's words. */
export function countedOf(chosen: readonly Row[], levels: Levels): string {
  const parts = (['unit', 'lesson', 'item'] as const).flatMap((level) => {
    const count = chosen.filter((row) => row.level === level).length
    return count > 0 ? [levels[level].counted(count)] : []
  })
  return joined(parts)
}

/** Those that are in none of the other chosen rows: they are what moves. */
export function outermost(chosen: readonly Row[]): Row[] {
  const keys = new Set(chosen.map((row) => row.key))
  return chosen.filter((row) => !homesOf(row).some((home) => keys.has(home)))
}

interface Place {
  key: string
  title: string
  note: string
  change: Change
}

/**
 * Where the chosen rows can go, each place by its key: items to the end of a lesson or unit, whole lessons to the end of a
 * unit, whole units after another. Null: they are of several kinds, and nothing can take them all.
 */
export function placesOf(rows: readonly Row[], chosen: readonly Row[], levels: Levels): Place[] | null {
  const moved = outermost(chosen)
  const level = moved[0]?.level
  if (!level || moved.some((row) => row.level !== level)) return null
  const taken = new Set(chosen.map((row) => row.key))
  const fits = (home: Row) => onlyIn(home) === null || moved.every((row) => onlyIn(row) === onlyIn(home))
  const homes = rows.filter((row) => row.level !== 'item' && !taken.has(row.key) && fits(row))
  switch (level) {
    case 'item':
      return homes.flatMap((row): Place[] => {
        if (row.level === 'item') return []
        const lesson = row.level === 'lesson' ? row.lesson : null
        const last = (lesson ?? row.unit).items.filter((item) => !taken.has(`item-${item.id}`)).at(-1)
        return [
          {
            key: row.key,
            title: lesson ? lesson.title : `${row.unit.title}, on the ${levels.unit.one} itself`,
            note: lesson ? row.unit.title : '',
            change: { place: { unit: row.unit.id, lesson: lesson?.id ?? null, after: last?.id ?? null } },
          },
        ]
      })
    case 'lesson':
      return homes.flatMap((row): Place[] => {
        if (row.level !== 'unit') return []
        const last = row.unit.lessons.filter((lesson) => !taken.has(`lesson-${lesson.id}`)).at(-1)
        const change = { lessonsPlace: { unit: row.unit.id, after: last?.id ?? null } }
        return [{ key: row.key, title: row.unit.title, note: '', change }]
      })
    case 'unit':
      return [
        { key: 'first', title: 'before everything else', note: '', change: { unitsPlace: { after: null } } },
        ...homes.flatMap((row): Place[] => {
          if (row.level !== 'unit') return []
          const change = { unitsPlace: { after: row.unit.id } }
          return [{ key: row.key, title: `after ${row.unit.title}`, note: '', change }]
        }),
      ]
  }
}

/** Each item after the first waits for the one before it. */
export const stepsOf = (chosen: readonly Row[], deed: string): Schemas['PlaceCondition'][] =>
  itemsOf(chosen).flatMap((item, n, all) =>
    n === 0 ? [] : [{ item: item.id, gate: { item: all[n - 1]!.lineage, is: deed }, version: item.version }],
  )
