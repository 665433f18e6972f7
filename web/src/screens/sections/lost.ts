import type { Schemas } from '../../foundation/api/client'

type Class = Schemas['PaceClass']
type Reach = Schemas['Reach']

/** How lost classes are made up for. */
export const ways = [
  { how: 'move-on', words: 'Everything moves on' },
  { how: 'spare', words: 'Use a spare class' },
  { how: 'drop', words: 'Drop an optional lesson' },
  { how: 'shorten', words: 'Shorten lessons' },
] as const

export type How = (typeof ways)[number]['how']

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
