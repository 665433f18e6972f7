import type { Schemas } from '../../foundation/api/client'

export type Outcome = Schemas['RosterLine']['outcome']
export type Column = Schemas['RosterColumnsAnswer']['columns'][number]

/** What becomes of rows, in the order in which somebody wants to look at them. */
export const outcomes: readonly { outcome: Outcome; words: (n: number) => string }[] = [
  { outcome: 'fault', words: (n) => `${n} cannot be read` },
  { outcome: 'conflict', words: (n) => `${n} ${n === 1 ? 'does' : 'do'} not match` },
  { outcome: 'missing', words: (n) => `${n} not in the file` },
  { outcome: 'ending', words: (n) => `${n} ${n === 1 ? 'ends' : 'end'}` },
  { outcome: 'changed', words: (n) => `${n} changed` },
  { outcome: 'new', words: (n) => `${n} new` },
  { outcome: 'same', words: (n) => `${n} to note` },
]

export const columnWords: Record<Column, string> = {
  ignored: 'not used',
  name: 'the whole name',
  'given-name': 'the given name',
  'family-name': 'the family name',
  email: 'the mail address',
  number: 'the school’s number',
  section: 'the section',
  subject: 'the subject',
  year: 'the year',
  role: 'student or teacher',
  from: 'the first day',
  until: 'the last day',
}

/** The columns after one was said to be something: what it now is, no other is any more. */
export const said = (columns: readonly Column[], at: number, column: Column): Column[] =>
  columns.map((one, n) => (n === at ? column : one === column && column !== 'ignored' ? 'ignored' : one))

/** What still has to be said before a table can be read; null: nothing. */
export function lacking(columns: readonly Column[]): string | null {
  const has = (...any: Column[]) => any.some((column) => columns.includes(column))
  if (!has('name', 'family-name')) return 'Say which column has the names.'
  if (!has('email')) return 'Say which column has the mail addresses.'
  if (!has('section')) return 'Say which column has the sections.'
  return null
}
