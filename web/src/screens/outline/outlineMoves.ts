import type { Schemas } from '../../foundation/api/client'
import type { Row } from './outlineRows'

/** A move, as its command asks for it. */
export type Move =
  | { of: 'unit'; request: Schemas['MoveUnitRequest'] }
  | { of: 'lesson'; request: Schemas['MoveLessonRequest'] }
  | { of: 'item'; request: Schemas['MoveItemRequest'] }

/** Where a row comes to stand that is dropped on another: after one of its own kind, first in what holds it. Null: nowhere. */
export function dropOn(row: Row, target: Row): Move | null {
  if (row.key === target.key) return null
  if (row.level === 'unit') return target.level === 'unit' ? unitAfter(row, target.unit.id) : null
  if (row.level === 'lesson') {
    if (target.level === 'lesson') return lessonTo(row, target.unit.id, target.lesson.id)
    return target.level === 'unit' ? lessonTo(row, target.unit.id, null) : null
  }
  if (target.level === 'item') return itemTo(row, target.unit.id, target.lesson?.id ?? null, target.item.id)
  return target.level === 'lesson'
    ? itemTo(row, target.unit.id, target.lesson.id, null)
    : itemTo(row, target.unit.id, null, null)
}

/** Where a row comes to stand that is put under another: after its own kind, or first in what it is put under. Null: it stays. */
export function putUnder(row: Row, above: Row | null): Move | null {
  if (!above) return row.level === 'unit' ? unitAfter(row, null) : null
  if (above.key === row.key) return null
  if (row.level === 'unit') return above.unit.id === row.unit.id ? null : unitAfter(row, above.unit.id)
  if (row.level === 'item' || above.level !== 'item') return dropOn(row, above)
  // A lesson under an item goes after the lesson that item is on.
  const after = above.lesson?.id ?? above.unit.lessons.at(-1)?.id ?? null
  return after === row.lesson.id ? null : lessonTo(row, above.unit.id, after)
}

/** One place up or down among its own kind; at the end of a lesson or unit, into the next. Null: there is none further. */
export function nudge(rows: Row[], row: Row, by: -1 | 1): Move | null {
  const kind = rows.filter((one) => one.level === row.level)
  const at = kind.findIndex((one) => one.key === row.key)
  if (row.level === 'item') return nudgeItem(rows, row, by)
  if (row.level === 'lesson') {
    const mine = kind as Extract<Row, { level: 'lesson' }>[]
    const next = mine[at + by]
    if (!next) return null
    if (by > 0) return next.unit.id === row.unit.id ? dropOn(row, next) : lessonTo(row, next.unit.id, null)
    const before = mine[at - 2]
    return lessonTo(
      row,
      next.unit.id,
      next.unit.id !== row.unit.id ? next.lesson.id : before?.unit.id === next.unit.id ? before.lesson.id : null,
    )
  }
  const units = kind as Extract<Row, { level: 'unit' }>[]
  if (by > 0) return units[at + 1] ? unitAfter(row, units[at + 1]!.unit.id) : null
  return at > 0 ? unitAfter(row, units[at - 2]?.unit.id ?? null) : null
}

type ItemRow = Extract<Row, { level: 'item' }>

// The homes of items are the lessons and the units themselves, from top to bottom.
function nudgeItem(rows: Row[], row: ItemRow, by: -1 | 1): Move | null {
  const siblings = rows.filter(
    (one): one is ItemRow => one.level === 'item' && one.unit.id === row.unit.id && one.lesson?.id === row.lesson?.id,
  )
  const at = siblings.findIndex((one) => one.key === row.key)
  const home = { unit: row.unit.id, lesson: row.lesson?.id ?? null }
  if (by > 0 && siblings[at + 1]) return itemTo(row, home.unit, home.lesson, siblings[at + 1]!.item.id)
  if (by < 0 && at > 0) return itemTo(row, home.unit, home.lesson, siblings[at - 2]?.item.id ?? null)
  const homes = rows
    .filter((one) => one.level === 'unit')
    .flatMap((one) => [
      ...one.unit.lessons.map((lesson) => ({
        unit: one.unit.id,
        lesson: lesson.id as number | null,
        items: lesson.items,
      })),
      { unit: one.unit.id, lesson: null, items: one.unit.items },
    ])
  const next = homes[homes.findIndex((one) => one.unit === home.unit && one.lesson === home.lesson) + by]
  if (!next) return null
  return itemTo(row, next.unit, next.lesson, by > 0 ? null : (next.items.at(-1)?.id ?? null))
}

const unitAfter = (row: Extract<Row, { level: 'unit' }>, after: number | null): Move => ({
  of: 'unit',
  request: { unit: row.unit.id, after, version: row.unit.version },
})

const lessonTo = (row: Extract<Row, { level: 'lesson' }>, unit: number, after: number | null): Move => ({
  of: 'lesson',
  request: { lesson: row.lesson.id, unit, after, version: row.lesson.version },
})

const itemTo = (row: ItemRow, unit: number, lesson: number | null, after: number | null): Move => ({
  of: 'item',
  request: { item: row.item.id, unit, lesson, after, version: row.item.version },
})
