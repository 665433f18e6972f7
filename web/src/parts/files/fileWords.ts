/** So many bytes in words: `2 GB`, `1.4 MB`, `312 kB`. */
export function sizeInWords(bytes: number): string {
  for (const [unit, size] of [
    ['GB', 1024 ** 3],
    ['MB', 1024 ** 2],
    ['kB', 1024],
  ] as const) {
    const many = bytes / size
    if (many >= 1) return `${many < 10 ? Math.round(many * 10) / 10 : Math.round(many)} ${unit}`
  }
  return bytes === 1 ? '1 byte' : `${bytes} bytes`
}

/** What separates the cells of a text: semicolons or tabs where there are more of them in the first line than commas. */
export function separatorOf(text: string): string {
  const first = text.slice(0, text.search(/[\r\n]|$/))
  return [',', ';', '\t'].sort((one, other) => first.split(other).length - first.split(one).length)[0]!
}

/**
 * The rows of a comma-separated text, as far as they are to be shown (RFC 4180).
 */
export function rowsOf(text: string, most = 200): string[][] {
  const separator = separatorOf(text)
  const rows: string[][] = []
  let row: string[] = []
  let cell = ''
  let quoted = false
  const endCell = () => {
    row.push(cell)
    cell = ''
  }
  const endRow = () => {
    endCell()
    if (row.length > 1 || row[0] !== '') rows.push(row)
    row = []
  }
  for (let at = 0; at < text.length && rows.length < most; at++) {
    const sign = text[at]!
    if (quoted) {
      if (sign !== '"') cell += sign
      else if (text[at + 1] === '"') cell += text[++at]
      else quoted = false
    } else if (sign === '"' && cell === '') quoted = true
    else if (sign === separator) endCell()
    else if (sign === '\n') endRow()
    else if (sign !== '\r') cell += sign
  }
  if (rows.length < most && (cell !== '' || row.length > 0)) endRow()
  return rows
}
