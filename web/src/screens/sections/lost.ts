import type { Schemas } from '../../foundation/api/client'
import type { Levels } from '../../foundation/levels'

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
  before: string | null
  after: (string | null | undefined)[]
}

/** The classes from one to another, both inclusive. */
export function between(classes: Class[], first: Class, last: number): { date: string; start: string }[] {
  return classes
    .filter((one) => one.ordinal >= first.ordinal && one.ordinal <= Math.max(first.ordinal, last))
    .map(({ date, start }) => ({ date, start }))
}

/** Every date that some way moves, in the order of the first that does, side by side. */
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
        before: row.before,
        after: outcomes.map(() => undefined),
      }
      known.after[at] = row.after
      rows.set(key, known)
    }
  })
  return [...rows.values()]
}
