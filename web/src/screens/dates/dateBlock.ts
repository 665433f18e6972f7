import type { Field, Row } from './dateCells'

/** How high every line of the table is, in pixels. */
export const lineHeight = 50

/** A place in the table: which item shown, which section, from 0. */
export interface Place {
  row: number
  column: number
}

/** Cells of one kind of date: from where one began to where one is. */
export interface Block {
  field: Field
  from: Place
  to: Place
}

export const boundsOf = ({ from, to }: Block) => ({
  top: Math.min(from.row, to.row),
  bottom: Math.max(from.row, to.row),
  left: Math.min(from.column, to.column),
  right: Math.max(from.column, to.column),
})

export function holds(block: Block | null, field: Field, row: number, column: number): boolean {
  if (block?.field !== field) return false
  const { top, bottom, left, right } = boundsOf(block)
  return top <= row && row <= bottom && left <= column && column <= right
}

const steps: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-10, 0],
  PageDown: [10, 0],
}

/**
 * Where a key leads; null: it leads nowhere. With Shift the block grows; without, up and down go through the dates of a
 * cell before they leave it.
 */
export function moved(
  block: Block,
  key: string,
  grows: boolean,
  fields: readonly Field[],
  rows: number,
  columns: number,
): Block | null {
  const step = steps[key]
  const { field, to } = block
  const put = (place: Place, of: Field = field): Block => ({ field: of, from: grows ? block.from : place, to: place })
  if (key === 'Home') return put({ row: to.row, column: 0 })
  if (key === 'End') return put({ row: to.row, column: columns - 1 })
  if (!step) return null
  const [down, right] = step
  const next = fields.indexOf(field) + Math.sign(down)
  if (!grows && Math.abs(down) === 1 && next >= 0 && next < fields.length) return put(to, fields[next])
  const place = {
    row: Math.min(rows - 1, Math.max(0, to.row + down)),
    column: Math.min(columns - 1, Math.max(0, to.column + right)),
  }
  const leaves = !grows && Math.abs(down) === 1 && place.row !== to.row
  return put(place, leaves ? (down > 0 ? fields[0] : fields.at(-1)) : field)
}

/** The cells of a block as a spreadsheet takes them: rows of local dates, `2026-10-12 12:00`. */
export function copied(block: Block, rows: Row[]): string {
  const { top, bottom, left, right } = boundsOf(block)
  return rows
    .slice(top, bottom + 1)
    .map((row) =>
      row.cells
        .slice(left, right + 1)
        .map((cell) => (cell[block.field]?.local ?? '').slice(0, 16).replace('T', ' '))
        .join('\t'),
    )
    .join('\n')
}

/** A date that was pasted for one cell. */
export interface Pasted extends Place {
  date: string
  /** Null: the time that the cell has. */
  time: string | null
}

/** What cannot be read, by its place in what was pasted, from 1. */
export interface Fault {
  row: number
  column: number
  text: string
}

const written = /^(\d{4}-\d{2}-\d{2})(?:[ T](\d{2}:\d{2})(?::\d{2})?)?$/
// The 30th of February is read as one of March: what comes back must be what was said.
const isDate = (date: string) => {
  const day = new Date(`${date}T00:00:00Z`)
  return !Number.isNaN(day.getTime()) && day.toISOString().startsWith(date)
}

/** Reads what a spreadsheet gives, from the first cell of a block on. An empty cell is left as it is; what would lie outside is not looked at. */
export function pasted(text: string, at: Place, rows: number, columns: number): { cells: Pasted[]; faults: Fault[] } {
  const cells: Pasted[] = []
  const faults: Fault[] = []
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n')
  lines.forEach((line, down) =>
    line.split('\t').forEach((said, right) => {
      const place = { row: at.row + down, column: at.column + right }
      const value = said.trim()
      if (value === '' || place.row >= rows || place.column >= columns) return
      const match = written.exec(value)
      if (match && isDate(match[1]!)) cells.push({ ...place, date: match[1]!, time: match[2] ?? null })
      else faults.push({ row: down + 1, column: right + 1, text: value })
    }),
  )
  return { cells, faults }
}
