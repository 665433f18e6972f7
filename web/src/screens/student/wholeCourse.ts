import type { Schemas } from '../../foundation/api/client'

type Now = Schemas['NowAnswer']
export type StudentItem = Schemas['StudentRow']

/** What one may know of in a unit, as stops along a line. */
export interface UnitLine {
  id: number
  title: string
  stops: StudentItem[]
  done: number
  /** When the first of it opens, where none has. */
  from: string | null
}

/** Whether nothing more is to be done with it. */
export const isDone = ({ progress, state }: StudentItem) =>
  ['done', 'given-back', 'handed-in', 'with-teacher'].includes(progress) || state === 'excused' || state === 'closed'

const order = new Intl.Collator('en', { numeric: true })

/** Everything one may know of, unit by unit in the order of the codes. */
export function wholeCourse({ now, next, locked, done }: Now): UnitLine[] {
  const units = new Map<string, StudentItem[]>()
  for (const row of [...now, ...locked, ...next, ...done].sort((a, b) => order.compare(a.code, b.code)))
    units.set(row.unit, [...(units.get(row.unit) ?? []), row])
  return [...units].map(([title, stops]) => {
    const coming = stops.every((stop) => stop.state === 'upcoming')
    const first = stops.flatMap((stop) => stop.opens ?? []).sort((a, b) => (a.local < b.local ? -1 : 1))[0]
    return {
      id: stops[0]!.unitId,
      title,
      stops,
      done: stops.filter(isDone).length,
      from: coming && first ? first.words.split(',')[0]! : null,
    }
  })
}

/** Rows of which every written word stands in the code, title or unit. */
export function matching(units: UnitLine[], written: string): UnitLine[] {
  const words = written.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return units
    .map((unit) => ({
      ...unit,
      stops: unit.stops.filter((stop) => {
        const text = `${stop.code} ${stop.title} ${unit.title}`.toLowerCase()
        return words.every((word) => text.includes(word))
      }),
    }))
    .filter((unit) => unit.stops.length > 0)
}

/** The work that a locked item waits for is with the teacher: then it is the teacher's turn. */
export const isWithTeacher = (row: StudentItem, { now, done }: Now) =>
  [...now, ...done].some(
    (one) => one.progress === 'with-teacher' && row.missing.some((words) => words.includes(`${one.code} `)),
  )

/** The seven days from now on, each with its classes and what opens and is due; days without anything are left out. */
export function thisWeek({ moment, classes, now, next, locked }: Now): { day: string; words: string[] }[] {
  const from = moment.local
  const to = new Date(Date.parse(`${from}Z`) + 7 * 86_400_000).toISOString().slice(0, 19)
  const events = [
    ...classes.map((at) => ({ at, words: `${at.local.slice(11, 16)} class` })),
    ...[...now, ...next, ...locked].flatMap((row) => [
      ...(row.opens && row.state === 'upcoming' ? [{ at: row.opens, words: `${row.code} opens` }] : []),
      ...(row.due ? [{ at: row.due, words: `${row.code} due ${row.due.local.slice(11, 16)}` }] : []),
    ]),
  ]
    .filter(({ at }) => at.local >= from && at.local < to)
    .sort((a, b) => (a.at.local < b.at.local ? -1 : 1))
  const days = new Map<string, string[]>()
  for (const { at, words } of events) {
    const day = at.words.split(',')[0]!
    days.set(day, [...(days.get(day) ?? []), words])
  }
  return [...days].map(([day, words]) => ({ day, words: [...new Set(words)] }))
}

/** What comes within two weeks; the rest is folded. */
export function soon(rows: StudentItem[], moment: { local: string }): StudentItem[] {
  const end = new Date(Date.parse(`${moment.local}Z`) + 14 * 86_400_000).toISOString().slice(0, 19)
  return rows.filter((row) => row.opens !== null && row.opens.local < end)
}
