import { rowsOf, separatorOf } from '../../../parts/files/fileWords'

/** The text of a file, without its byte order mark; null: it can't be read just now. */
export async function readText(address: string): Promise<string | null> {
  const answer = await fetch(address).catch(() => null)
  return answer?.ok ? (await answer.text()).replace(/^\uFEFF/, '') : null
}

/** The cells of a comma-separated text, each row as long as the longest. */
export function cellsOf(text: string): string[][] {
  const rows = rowsOf(text, Infinity)
  const width = Math.max(1, ...rows.map((row) => row.length))
  return (rows.length ? rows : [[]]).map((row) => [...row, ...Array<string>(width - row.length).fill('')])
}

/** The same cells as text, separated as in the text they came from (RFC 4180). */
export function textOf(cells: readonly (readonly string[])[], like: string): string {
  const separator = separatorOf(like)
  const written = (cell: string) =>
    cell.includes(separator) || /["\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell
  return cells.map((row) => row.map(written).join(separator) + '\n').join('')
}
