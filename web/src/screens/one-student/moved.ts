import type { Schemas } from '../../foundation/api/client'

export type MoveRow = Schemas['MoveRow']
export type Choice = NonNullable<MoveRow['choice']>

export const choiceWords: Record<Choice, string> = {
  new: 'gets a new due date',
  excuse: 'is excused',
  keep: 'stays as it is, and is overdue',
}

/** What becomes of an item, in words that go on after its title. */
export function becomes(row: MoveRow): string {
  const due = row.dueHere ? `due ${row.dueHere.words}` : 'no due date'
  switch (row.state) {
    case 'left-behind':
      return row.readable ? 'stays behind, but what they wrote stays readable' : 'stays behind'
    case 'dropped':
      return row.readable ? 'is not taught there, but stays readable' : 'is not taught there'
    case 'held':
      return row.readable ? 'is kept back there, but stays readable' : 'is kept back there'
    case 'done':
      return 'done, and stays done'
    case 'already-due':
      return row.dueHere ? `was due there ${row.dueHere.words}` : 'has closed there'
    case 'extra':
      return `is new to them, ${due}`
    case 'due-in-both':
      return `was due in both: stays overdue`
    case 'same':
      return row.dueHere ? `the same due date` : 'the same'
    case 'earlier':
      return `${due}, earlier than before`
    default:
      return row.dueHere ? `${due}, later than before` : 'no due date any more'
  }
}

/** Those that ask for a choice first, then what differs; what stays the same is only counted. */
export function sorted(rows: readonly MoveRow[]): { asks: MoveRow[]; differs: MoveRow[]; same: number } {
  const same = (row: MoveRow) => (row.state === 'done' || row.state === 'same') && !row.keptOpen
  return {
    asks: rows.filter((row) => row.state === 'already-due'),
    differs: rows.filter((row) => row.state !== 'already-due' && !same(row)),
    same: rows.filter(same).length,
  }
}

/** Choices as the address of the question has them: only those that are not as proposed. */
export const asked = (choices: ReadonlyMap<number, Choice>): string =>
  [...choices]
    .filter(([, choice]) => choice !== 'new')
    .map(([item, choice]) => `${item}:${choice}`)
    .join(',')
