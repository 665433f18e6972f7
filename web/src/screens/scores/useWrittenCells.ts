import { computed, nextTick, shallowRef } from 'vue'
import type { Answer, Line, Student } from './scoreLines'
import { type Written, keyOf, readScore, takesScore } from './scoreWriting'

interface Field {
  focus: () => void
}

/** The cells of the table in which scores are written: what stands in them, and how keys go from one to the next. */
export function useWrittenCells(
  table: () => { answer: Answer; lines: Line[]; written: Written | null },
  scrollTo: (line: number) => void,
) {
  const itemAt = (place: number) => table().answer.items[place]!
  const isWritten = (student: Student, place: number) =>
    table().written !== null && takesScore(itemAt(place), student.cells[place]!)
  const textOf = (student: Student, place: number) =>
    table().written?.get(keyOf(student.student, itemAt(place).item)) ?? student.cells[place]!.points ?? ''
  const isChanged = (student: Student, place: number) => textOf(student, place) !== (student.cells[place]!.points ?? '')
  function isUnread(student: Student, place: number): boolean {
    const text = textOf(student, place)
    return isChanged(student, place) && text.trim() !== '' && 'problem' in readScore(itemAt(place).marked!, text)
  }

  /** How many lines come before the first student. */
  const first = computed(() => table().lines.findIndex((line) => 'student' in line))
  /** Those that are drawn, by where they are. */
  const fields = shallowRef(new Map<string, Field>())
  function keep(at: string, field: unknown): void {
    if (field) fields.value.set(at, field as Field)
    else fields.value.delete(at)
  }

  /** To the next cell of a column that takes a score. */
  async function go(from: number, place: number, by: number): Promise<void> {
    const { lines } = table()
    for (let to = from + by; to >= first.value && to < lines.length; to += by) {
      const line = lines[to]!
      if (!('student' in line) || !isWritten(line.student, place)) continue
      scrollTo(to)
      await nextTick()
      fields.value.get(`${to}:${place}`)?.focus()
      return
    }
  }

  return { isWritten, textOf, isChanged, isUnread, first, keep, go }
}
