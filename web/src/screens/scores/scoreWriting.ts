import type { Schemas } from '../../foundation/api/client'
import type { Cell, Student } from './scoreLines'

type Item = Schemas['ScoreItem']

/** What is written in a cell, as it is sent; or why it will not do. */
export type Read = { value: number | null; level: string | null } | { problem: string }

const NUMBER = /^\d{1,5}([.,]\d{1,2})?$/
const isLike = (one: string, other: string) => one.localeCompare(other, undefined, { sensitivity: 'base' }) === 0

/** Reads a score as somebody writes it; a level may be cut short as long as it is one only. */
export function readScore(marked: Schemas['MarkedForm'], text: string): Read {
  const written = text.trim()
  if (marked.as === 'scale') {
    const names = marked.levels.map((level) => level.name)
    const fit =
      names.find((name) => isLike(name, written)) ??
      only(names.filter((name) => isLike(name.slice(0, written.length), written)))
    return fit === undefined ? { problem: `“${written}” is none of ${names.join(', ')}` } : { value: null, level: fit }
  }
  const number = marked.as === 'percent' ? written.replace(/\s*%$/, '') : written
  const value = NUMBER.test(number) ? Number(number.replace(',', '.')) : NaN
  return value <= 10_000
    ? { value, level: null }
    : { problem: `“${written}” is no number from 0 to 10,000 with at most two decimals` }
}

const only = (some: string[]): string | undefined => (some.length === 1 ? some[0] : undefined)

/** Whether somebody can have a score in an item: it is theirs, and whoever reads it marks it. */
export const takesScore = (item: Item, cell: Cell): boolean =>
  item.marked !== null && !['not here', 'excused', 'not theirs'].includes(cell.words)

/** What is written, by student and item. */
export type Written = ReadonlyMap<string, string>
export const keyOf = (student: number, item: number): string => `${student}:${item}`

/** Where pasted lines go: into which cells, and what finds no place. */
export interface Pasted {
  written: Map<string, string>
  unplaced: string[]
}

/**
 * Places what was copied from a spreadsheet. Lines that begin with students’ names find their students; else they go down from the cell
 * in which they are pasted.
 * @param from The line of the cell, among the students.
 * @param columns The items from the cell’s own on, by their places.
 */
export function placePasted(
  text: string,
  from: number,
  students: readonly Student[],
  columns: readonly number[],
  items: readonly Item[],
): Pasted {
  const lines = text
    .replace(/\r\n?/g, '\n')
    .replace(/\n+$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((part) => part.trim()))
  const named = (name: string) => students.find((student) => isLike(student.name, name))
  const byName = lines.some((line) => line.length > 1 && named(line[0]!))
  const written = new Map<string, string>()
  const unplaced: string[] = []
  lines.forEach((line, n) => {
    const student = byName ? named(line[0]!) : students[from + n]
    const scores = byName ? line.slice(1) : line
    if (!student) {
      if (line.some((part) => part !== ''))
        unplaced.push(byName ? `nobody here is called “${line[0]}”` : `line ${n + 1} comes after the last student`)
      return
    }
    scores.forEach((score, at) => {
      const place = columns[at]
      if (score === '') return
      if (place === undefined) unplaced.push(`“${score}” of ${student.name} has no column`)
      else if (!takesScore(items[place]!, student.cells[place]!))
        unplaced.push(`${student.name} takes no score in ${items[place]!.code}`)
      else written.set(keyOf(student.student, items[place]!.item), score)
    })
  })
  return { written, unplaced }
}

/** What is to be given of all that is written, what of it is more than full marks, and what will not do. */
export function toGive(
  written: Written,
  students: readonly Student[],
  items: readonly Item[],
): { scores: Schemas['GivenScore'][]; problems: string[]; more: string[] } {
  const scores: Schemas['GivenScore'][] = []
  const problems: string[] = []
  const more: string[] = []
  for (const student of students)
    items.forEach((item, place) => {
      const text = written.get(keyOf(student.student, item.item))
      if (text === undefined || text.trim() === '' || !item.marked || text === student.cells[place]!.points) return
      const read = readScore(item.marked, text)
      if ('problem' in read) problems.push(`${item.code} of ${student.name}: ${read.problem}`)
      else {
        scores.push({ item: item.item, student: student.student, ...read })
        const full = item.marked.as === 'percent' ? 100 : item.marked.outOf
        if (read.value !== null && read.value > full) more.push(`${read.value} of ${full} for ${student.name}`)
      }
    })
  return { scores, problems, more }
}
