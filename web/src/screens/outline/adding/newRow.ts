import type { Levels } from '../../../foundation/levels'
import type { Row } from '../outlineRows'

/** What can be added, each with the letter that says so before a colon: `q: Which storey?`. */
export const kindsOfRow = ['page', 'link', 'handout', 'task', 'quiz', 'choice', 'discussion', 'lesson', 'unit'] as const
export type KindOfRow = (typeof kindsOfRow)[number]

/** What something new is called on the screen. */
export const wordOf = (kind: KindOfRow, levels: Levels) =>
  kind === 'lesson' ? levels.lesson.one : kind === 'unit' ? levels.unit.one : kind

/** A title as it is written, and the kind where a word or its first letters stand before it. */
export function readTitle(written: string, levels: Levels): { kind: KindOfRow | null; title: string } {
  const found = /^\s*([a-z]+)\s*:\s*(.*)$/i.exec(written)
  const word = found?.[1]!.toLowerCase()
  const kind = word && kindsOfRow.find((one) => wordOf(one, levels).toLowerCase().startsWith(word))
  return found && kind ? { kind, title: found[2]!.trim() } : { kind: null, title: written.trim() }
}

/** What is meant first under a row: a lesson under a unit, and an item otherwise. */
export const kindUnder = (row: Row): KindOfRow =>
  row.level === 'unit' && row.unit.lessons.length === 0 ? 'lesson' : 'page'

/** Where something added under a row comes to stand. */
export function placeUnder(row: Row, kind: KindOfRow) {
  const { unit } = row
  const lesson = row.level === 'unit' ? null : row.lesson
  if (kind === 'unit') return { of: 'unit' as const, after: unit.id }
  if (kind === 'lesson')
    return {
      of: 'lesson' as const,
      unit: unit.id,
      after: lesson?.id ?? (row.level === 'item' ? (unit.lessons.at(-1)?.id ?? null) : null),
    }
  return {
    of: 'item' as const,
    unit: unit.id,
    lesson: lesson?.id ?? null,
    after: row.level === 'item' ? row.item.id : null,
    first: row.level !== 'item',
  }
}
