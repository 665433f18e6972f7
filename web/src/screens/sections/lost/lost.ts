import type { Schemas } from '../../../foundation/api/client'
import type { Levels } from '../../../foundation/levels'

type Class = Schemas['PaceClass']
type Reach = Schemas['ReachAnswer']

/** How lost classes are made up for. */
export const waysOf = (lesson: Levels['lesson']) => [
  { how: 'move-on' as const, words: 'Everything moves on' },
  { how: 'spare' as const, words: 'Use a spare class' },
  { how: 'drop' as const, words: `Drop an optional ${lesson.one}` },
  { how: 'shorten' as const, words: `Shorten ${lesson.many}` },
]

export type How = ReturnType<typeof waysOf>[number]['how']

/** What a way comes to: its words and dates, or why there is no such way. */
export type Outcome = { words: string; reach: Reach } | { refused: string }

/** One date, and what it becomes in each way; undefined: it stays. */
export interface DateRow {
  name: string
  field: string
  kind: string
  /** When it is, or comes to be, local. */
  at: string
  before: string | null
  after: (string | null | undefined)[]
  /** Where it would be due on a day without classes. */
  isOffDay: boolean[]
}

/** Dates that are looked at together. */
export interface DateGroup {
  title: string
  rows: DateRow[]
}

/** The classes from one to another, both inclusive. */
export function between(classes: Class[], first: Class, last: number): { date: string; start: string }[] {
  return classes
    .filter((one) => one.ordinal >= first.ordinal && one.ordinal <= Math.max(first.ordinal, last))
    .map(({ date, start }) => ({ date, start }))
}

/** Every date that some way moves, side by side, in the order of time. */
export function sideBySide(outcomes: (Outcome | null)[]): DateRow[] {
  const rows = new Map<string, DateRow>()
  outcomes.forEach((outcome, at) => {
    if (!outcome || 'refused' in outcome) return
    for (const row of outcome.reach.rows) {
      if (!['opens', 'due', 'closes'].includes(row.field)) continue
      const key = `${row.target} ${row.field}`
      const known = rows.get(key) ?? {
        name: row.name,
        field: row.field,
        kind: row.kind ?? '',
        at: row.from ?? row.to ?? '',
        before: row.before,
        after: outcomes.map(() => undefined),
        isOffDay: outcomes.map(() => false),
      }
      known.after[at] = row.after
      rows.set(key, known)
    }
    for (const row of outcome.reach.rows.filter((one) => one.field === offDay)) {
      const due = rows.get(`${row.target} due`)
      if (due) due.isOffDay[at] = true
    }
  })
  return [...rows.values()].sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0))
}

/** A due that would be on a day without classes, as the server calls it. */
const offDay = 'due on a day without classes'

/** Those to look at first: the two weeks from the first lost class on, quizzes, dues on days without classes; then the rest. */
export function groupsOf(rows: DateRow[], lost: Pick<Class, 'date'>): DateGroup[] {
  const end = new Date(`${lost.date}T00:00Z`)
  end.setUTCDate(end.getUTCDate() + 14)
  const until = end.toISOString().slice(0, 10)
  const groups: [title: string, which: (row: DateRow) => boolean][] = [
    ['The two weeks after it', (row) => row.at < until],
    ['Quizzes later on', (row) => row.kind === 'quiz'],
    ['Due on a day without classes', (row) => row.isOffDay.some(Boolean)],
    ['All that comes later', () => true],
  ]
  const left = new Set(rows)
  return groups.flatMap(([title, which]) => {
    const found = [...left].filter(which)
    found.forEach((row) => left.delete(row))
    return found.length > 0 ? [{ title, rows: found }] : []
  })
}
