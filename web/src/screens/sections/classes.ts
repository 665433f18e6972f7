import type { Schemas } from '../../foundation/api/client'

type Class = Schemas['PaceClass']

/** What is to be done with which class; of one to be added the class whose times are proposed. */
export interface Wanted {
  what: 'cancel' | 'move' | 'add'
  of: Class | null
}

/** The time a class is to have. */
export interface Times {
  date: string
  start: string
  end: string
}

/** Classes to come, or all of them. */
export const comingFirst = (classes: Class[], withPast: boolean): Class[] =>
  withPast ? classes : classes.filter((one) => !one.isOver)

/** The change in the plan file's form; null: it is not yet said whole, or changes nothing. */
export function changeOf(wanted: Wanted, times: Times): object | null {
  const { date, start } = wanted.of ?? { date: '', start: '' }
  if (!times.date || !times.start || !times.end || times.end <= times.start) return null
  if (wanted.what === 'add') return { add: { ...times } }
  const same = times.date === date && times.start === start && times.end === wanted.of?.end
  return same ? null : { move: { date, start, to: { ...times } } }
}
