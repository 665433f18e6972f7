import type { Schemas } from '../../foundation/api/client'

export type Answer = Schemas['DatesAnswer']
export type Row = Schemas['DatesRow']
type Unit = Schemas['DatesUnit']

/** What of the table is shown; an empty part shows all. */
export interface Filter {
  words: string
  unit: string
  week: string
  kind: string
  only: string
  /** Whose dates count for the week and for what is shown only; the id. */
  section: string
}

export const noFilter: Filter = { words: '', unit: '', week: '', kind: '', only: '', section: '' }

/** A line of the table: a unit's head, or an item with its place among the items shown. */
export type Line = { head: Unit } | { row: Row; place: number }

/** The Monday of the week that a local date lies in, as a date. */
export function mondayOf(local: string): string {
  const date = new Date(`${local.slice(0, 10)}T00:00:00Z`)
  date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7))
  return date.toISOString().slice(0, 10)
}

const momentsOf = (cells: Row['cells']) =>
  cells.flatMap((cell) => [cell.opens, cell.due, cell.closes].filter((moment) => moment !== null))

/** Every week in which something opens, falls due or closes, by its Monday. */
export const weeksOf = (answer: Answer): string[] =>
  [
    ...new Set(
      answer.units.flatMap((unit) =>
        unit.items.flatMap((row) => momentsOf(row.cells).map((one) => mondayOf(one.local))),
      ),
    ),
  ].sort()

export const kindsOf = (answer: Answer): string[] =>
  [...new Set(answer.units.flatMap((unit) => unit.items.map((row) => row.kind)))].sort()

/** Whether a local moment lies in a week, named by its Monday, or between two moments: `2026-10-08T10:50/2026-10-15T10:50`. */
function isIn(week: string, local: string): boolean {
  const [from, to] = week.split('/')
  return to === undefined ? mondayOf(local) === week : local.slice(0, 16) > from! && local.slice(0, 16) <= to
}

const shows = (row: Row, unit: Unit, filter: Filter, cells: Row['cells']): boolean =>
  (filter.words === '' || `${row.code} ${row.title}`.toLowerCase().includes(filter.words.trim().toLowerCase())) &&
  (filter.unit === '' || `${unit.number}` === filter.unit) &&
  (filter.kind === '' || row.kind === filter.kind) &&
  (filter.week === '' || momentsOf(cells).some((one) => isIn(filter.week, one.local))) &&
  (filter.only !== 'differs' || cells.some((cell) => cell.differs.length > 0)) &&
  (filter.only !== 'to-check' || cells.some((cell) => cell.toCheck.length > 0 || cell.unresolved)) &&
  (filter.only !== 'unpublished' || !row.published)

/** The lines that a filter leaves; a unit without an item has no head. */
export function linesOf(answer: Answer, filter: Filter): Line[] {
  const lines: Line[] = []
  let place = 0
  const column = answer.sections.findIndex((section) => `${section.id}` === filter.section)
  for (const unit of answer.units) {
    const rows = unit.items.filter((row) =>
      shows(row, unit, filter, column < 0 ? row.cells : row.cells.slice(column, column + 1)),
    )
    if (rows.length > 0) lines.push({ head: unit }, ...rows.map((row) => ({ row, place: place++ })))
  }
  return lines
}

export const rowsOf = (lines: Line[]): Row[] => lines.flatMap((line) => ('row' in line ? [line.row] : []))
