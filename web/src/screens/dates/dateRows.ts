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
}

export const noFilter: Filter = { words: '', unit: '', week: '', kind: '', only: '' }

/** A line of the table: a unit's head, or an item with its place among the items shown. */
export type Line = { head: Unit } | { row: Row; place: number }

/** The Monday of the week that a local date lies in, as a date. */
export function mondayOf(local: string): string {
  const date = new Date(`${local.slice(0, 10)}T00:00:00Z`)
  date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7))
  return date.toISOString().slice(0, 10)
}

const momentsOf = (row: Row) =>
  row.cells.flatMap((cell) => [cell.opens, cell.due, cell.closes].filter((moment) => moment !== null))

/** Every week in which something opens, falls due or closes, by its Monday. */
export const weeksOf = (answer: Answer): string[] =>
  [
    ...new Set(
      answer.units.flatMap((unit) => unit.items.flatMap((row) => momentsOf(row).map((one) => mondayOf(one.local)))),
    ),
  ].sort()

export const kindsOf = (answer: Answer): string[] =>
  [...new Set(answer.units.flatMap((unit) => unit.items.map((row) => row.kind)))].sort()

const shows = (row: Row, unit: Unit, filter: Filter): boolean =>
  (filter.words === '' || `${row.code} ${row.title}`.toLowerCase().includes(filter.words.trim().toLowerCase())) &&
  (filter.unit === '' || `${unit.number}` === filter.unit) &&
  (filter.kind === '' || row.kind === filter.kind) &&
  (filter.week === '' || momentsOf(row).some((one) => mondayOf(one.local) === filter.week)) &&
  (filter.only !== 'differs' || row.cells.some((cell) => cell.differs.length > 0)) &&
  (filter.only !== 'to-check' || row.cells.some((cell) => cell.toCheck.length > 0 || cell.unresolved)) &&
  (filter.only !== 'unpublished' || !row.published)

/** The lines that a filter leaves; a unit without an item has no head. */
export function linesOf(answer: Answer, filter: Filter): Line[] {
  const lines: Line[] = []
  let place = 0
  for (const unit of answer.units) {
    const rows = unit.items.filter((row) => shows(row, unit, filter))
    if (rows.length > 0) lines.push({ head: unit }, ...rows.map((row) => ({ row, place: place++ })))
  }
  return lines
}

export const rowsOf = (lines: Line[]): Row[] => lines.flatMap((line) => ('row' in line ? [line.row] : []))
