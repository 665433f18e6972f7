import { type Ref, nextTick } from 'vue'
import { useScreenKeys } from '../../foundation/useKeys'
import type { Line } from './scoreLines'

/** Where a cell stands: its line, and which of the columns in view. */
interface Spot {
  line: number
  column: number
}

/** The table's cells, gone through by the arrow keys; and the question why, asked of the one that has the focus. */
export function useCellKeys(
  frame: Readonly<Ref<HTMLElement | null>>,
  table: () => { lines: readonly Line[]; columns: number },
  scrollTo: (line: number) => void,
  why: (spot: Spot) => void,
) {
  const nameOf = ({ line, column }: Spot) => `${line}:${column}`

  function current(): Spot | null {
    const cell = document.activeElement?.closest<HTMLElement>('[data-cell]')
    if (!cell || !frame.value?.contains(cell)) return null
    const [line, column] = cell.dataset.cell!.split(':').map(Number)
    return { line: line!, column: column! }
  }

  async function go(down: number, right: number): Promise<void> {
    const { lines, columns } = table()
    const at = current()
    const isStudent = (line: number) => 'student' in lines[line]!
    const column = at ? Math.min(columns - 1, Math.max(0, at.column + right)) : 0
    let line = at ? at.line + down : lines.findIndex((one) => 'student' in one)
    // What a section comes to as a whole is stepped over.
    while (line >= 0 && line < lines.length && !isStudent(line)) line += down || 1
    if (line < 0 || line >= lines.length) return
    scrollTo(line)
    await nextTick()
    // A line that was out of view is drawn a moment later.
    for (let tries = 0; tries < 10; tries++) {
      const cell = frame.value?.querySelector<HTMLElement>(`[data-cell="${nameOf({ line, column })}"]`)
      if (cell) {
        cell.focus()
        cell.scrollIntoView({ block: 'nearest', inline: 'nearest' })
        return
      }
      await new Promise(requestAnimationFrame)
    }
  }

  useScreenKeys([
    { key: 'ArrowDown', words: 'the next student, in the same column', run: () => void go(1, 0) },
    { key: 'ArrowUp', words: 'the student before', run: () => void go(-1, 0) },
    { key: 'ArrowRight', words: 'the next column', run: () => void go(0, 1) },
    { key: 'ArrowLeft', words: 'the column before', run: () => void go(0, -1) },
    {
      key: 'y',
      words: 'why it is open to that student, or not',
      run: () => {
        const at = current()
        if (at) why(at)
      },
    },
  ])
  return { nameOf }
}
