import type { Levels } from '../../foundation/levels'
import { type Row, hiddenBy, onlyIn, titleOf } from './outlineRows'

/** What of the outline is looked for, and which of its rows. */
export interface View {
  words: string
  only: '' | 'unpublished' | 'condition' | 'due' | 'differs' | 'no-text'
}

/** The choices of rows there are, in words. */
export const onlyWords: Record<View['only'], string> = {
  '': 'everything',
  unpublished: 'unseen by students',
  condition: 'with a condition',
  due: 'with a due date',
  differs: 'different in a section',
  'no-text': 'without text',
}

/** The view that an address asks for; what it does not know is everything. */
export function viewOf({ words, only }: Record<string, unknown>): View {
  const known = typeof only === 'string' && Object.hasOwn(onlyWords, only) ? (only as View['only']) : ''
  return { words: typeof words === 'string' ? words.slice(0, 200) : '', only: known }
}

const codeOf = (row: Row) =>
  row.level === 'item' ? row.item.code : row.level === 'unit' && row.unit.number !== null ? `${row.unit.number}` : ''

function isOf(row: Row, only: View['only'], levels: Levels): boolean {
  switch (only) {
    case '':
      return true
    case 'unpublished':
      return hiddenBy(row, levels) !== null
    case 'differs':
      return (
        onlyIn(row) !== null ||
        (row.level !== 'unit' && (row.level === 'item' ? row.item : row.lesson).differs.length > 0)
      )
    case 'condition':
      return row.level === 'item' && row.item.condition !== null
    case 'due':
      return row.level === 'item' && row.item.due !== null
    case 'no-text':
      return row.level === 'item' && !row.item.hasText
  }
}

/** What holds a row, outermost first. */
export const homesOf = (row: Row): string[] =>
  row.level === 'unit'
    ? []
    : row.level === 'lesson' || !row.lesson
      ? [`unit-${row.unit.id}`]
      : [`unit-${row.unit.id}`, `lesson-${row.lesson.id}`]

/**
 * The rows in view. Without anything looked for, what is in a folded row is left out; otherwise those that match are
 * shown with what holds them, folded or not.
 */
export function inView(rows: readonly Row[], view: View, folded: ReadonlySet<string>, levels: Levels): Row[] {
  const words = view.words.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0 && view.only === '')
    return rows.filter((row) => !homesOf(row).some((home) => folded.has(home)))
  const hits = rows.filter((row) => {
    const text = `${codeOf(row)} ${titleOf(row)} ${row.words}`.toLowerCase()
    return words.every((word) => text.includes(word)) && isOf(row, view.only, levels)
  })
  const shown = new Set(hits.flatMap((row) => [row.key, ...homesOf(row)]))
  return rows.filter((row) => shown.has(row.key))
}

/**
 * What is chosen once some rows are taken, or let go. A unit or lesson is taken with all that is in it, but for what a
 * filter hides; it is whole only while all of that is chosen.
 * @param hidden The keys of rows that a filter leaves out.
 */
export function withTaken(
  rows: readonly Row[],
  hidden: ReadonlySet<string>,
  chosen: ReadonlySet<string>,
  taken: readonly Row[],
  isTaken: boolean,
): Set<string> {
  const keys = new Set(taken.map((row) => row.key))
  const now = new Set(chosen)
  for (const row of rows.filter((one) => keys.has(one.key) || homesOf(one).some((home) => keys.has(home)))) {
    if (!isTaken) now.delete(row.key)
    else if (!hidden.has(row.key)) now.add(row.key)
  }
  // Homes are looked at from the inside out: rows stand the other way round.
  for (const row of rows.toReversed()) if (!now.has(row.key)) homesOf(row).forEach((home) => now.delete(home))
  return now
}

/** The rows from one to another that are taken as a stretch: of a unit or lesson that goes on beyond it, only what is in it. */
export function stretch(shown: readonly Row[], from: string, to: string): Row[] {
  const keys = new Set(between(shown, from, to))
  return shown.filter(
    (row) => keys.has(row.key) && !shown.some((one) => homesOf(one).includes(row.key) && !keys.has(one.key)),
  )
}

/** The keys of the rows from one to another, as they stand, both included. */
export function between(rows: readonly Row[], from: string, to: string): string[] {
  const [a, b] = [rows.findIndex((row) => row.key === from), rows.findIndex((row) => row.key === to)]
  if (a < 0 || b < 0) return [to]
  return rows.slice(Math.min(a, b), Math.max(a, b) + 1).map((row) => row.key)
}
