import { plusDays } from '../../parts/calendarDays'

/** The school's days that a typed date is read against. Dates are written `2026-10-22`. */
export interface SchoolDays {
  today: string
  /** The first and last day of the term in view. */
  first: string
  last: string
  /** Days with classes, of the section in view or of the school. */
  classDays: readonly string[]
}

/** A typed text that is a date, or what is wrong with it. */
export type Typed = { date: string | null } | { problem: string }

const WEEKDAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat']
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
const HOW = 'Write a date such as 22 Oct, 22/10, Thu, tomorrow or +3 classes.'

const weekdayOf = (date: string) => new Date(`${date}T00:00Z`).getUTCDay()
const capital = (word: string) => word[0]!.toUpperCase() + word.slice(1)

/** `Thu 22 Oct`; with the year where it is not that of the term. */
export function spokenDate(date: string, within?: Pick<SchoolDays, 'first' | 'last'>): string {
  const [year, month, day] = date.split('-')
  const words = `${capital(WEEKDAYS[weekdayOf(date)]!)} ${Number(day)} ${capital(MONTHS[Number(month) - 1]!)}`
  return within && (year === within.first.slice(0, 4) || year === within.last.slice(0, 4)) ? words : `${words} ${year}`
}

/**
 * Reads a date as a teacher writes it. A weekday is the next one; a day of a month lies in the term where it can;
 * what is counted is counted from `from`, or from today.
 */
export function typedDate(text: string, days: SchoolDays, from?: string | null): Typed {
  const written = text.trim().toLowerCase().replace(/[,.]/g, ' ').replace(/\s+/g, ' ').trim()
  if (written === '') return { date: null }
  const near: Record<string, number> = { today: 0, tomorrow: 1, yesterday: -1 }
  if (written in near) return { date: plusDays(days.today, near[written]!) }
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(written)
  if (iso) return onDay(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const counted = /^([+\-–−]) ?(\d{1,3}) ?(d|days?|w|weeks?|c|class|classes)?$/.exec(written)
  if (counted) return count(counted[1] === '+' ? 1 : -1, Number(counted[2]), counted[3] ?? 'days', from, days)
  const weekday = WEEKDAYS.findIndex((name) => new RegExp(`^(next )?${name}[a-z]*$`).test(written))
  if (weekday >= 0) return { date: plusDays(days.today, ((weekday - weekdayOf(days.today) + 6) % 7) + 1) }
  const bare = written.replace(/^(sun|mon|tue|wed|thu|fri|sat)[a-z]* /, '')
  const numbers = /^(\d{1,2})(?:[ /-](\d{1,2})(?:[ /-](\d{4}|\d{2}))?)?$/.exec(bare)
  if (numbers) return inTerm(Number(numbers[1]), numbers[2] ? Number(numbers[2]) : null, yearOf(numbers[3]), days)
  const words =
    /^(\d{1,2})(?:st|nd|rd|th)? ?([a-z]{3,9})(?: (\d{4}|\d{2}))?$/.exec(bare) ??
    swapped(/^([a-z]{3,9}) ?(\d{1,2})(?:st|nd|rd|th)?(?: (\d{4}|\d{2}))?$/.exec(bare))
  const month = words ? MONTHS.findIndex((name) => words[2]!.startsWith(name)) + 1 : 0
  if (words && month > 0) return inTerm(Number(words[1]), month, yearOf(words[3]), days)
  return { problem: HOW }
}

const swapped = (found: RegExpExecArray | null) => found && [found[0], found[2], found[1], found[3]]
const yearOf = (digits: string | undefined) => (digits ? Number(digits.length === 2 ? `20${digits}` : digits) : null)
const pad = (n: number) => `${n}`.padStart(2, '0')

function onDay(year: number, month: number, day: number): Typed {
  const date = `${year}-${pad(month)}-${pad(day)}`
  const known = new Date(`${date}T00:00Z`)
  if (year < 2000 || year > 2100 || Number.isNaN(known.getTime()) || known.getUTCDate() !== day)
    return { problem: `There is no such day. ${HOW}` }
  return { date }
}

// Without a year, and perhaps without a month: the one in the term, or else the nearest to today.
function inTerm(day: number, month: number | null, year: number | null, days: SchoolDays): Typed {
  if (year !== null) return onDay(year, month!, day)
  const years = new Set([days.first, days.last, days.today].map((date) => Number(date.slice(0, 4))))
  const found = [...years]
    .flatMap((one) => (month === null ? MONTHS.map((_, n) => onDay(one, n + 1, day)) : [onDay(one, month, day)]))
    .flatMap((one) => ('date' in one && one.date ? [one.date] : []))
  const within = found.filter((date) => date >= days.first && date <= days.last)
  const far = (date: string) => {
    const by = (Date.parse(date) - Date.parse(days.today)) / 86_400_000
    // A day without its month is one to come.
    return month === null && by < 0 ? 1000 - by : Math.abs(by)
  }
  const best = (within.length > 0 ? within : found).sort((a, b) => far(a) - far(b))[0]
  return best ? { date: best } : { problem: `There is no such day. ${HOW}` }
}

function count(sign: 1 | -1, n: number, unit: string, from: string | null | undefined, days: SchoolDays): Typed {
  const start = from ?? days.today
  if (unit.startsWith('w')) return { date: plusDays(start, sign * 7 * n) }
  if (unit.startsWith('d')) return { date: plusDays(start, sign * n) }
  if (n === 0) return { date: start }
  const others = days.classDays.filter((date) => (sign > 0 ? date > start : date < start))
  const date = sign > 0 ? others[n - 1] : others.at(-n)
  if (date) return { date }
  return {
    problem: `Only ${others.length === 1 ? '1 day' : `${others.length} days`} with classes ${
      sign > 0 ? 'after' : 'before'
    } ${spokenDate(start, days)}. Write a date instead.`,
  }
}

/** Reads a time of day as it is written in a hurry: `10:40`, `10.40`, `1040`, `9`, `2pm`. Null: nothing is written. */
export function typedTime(text: string): { time: string | null } | { problem: string } {
  const written = text.trim().toLowerCase()
  if (written === '') return { time: null }
  const found = /^(\d{1,2})(?:[:. h]?(\d{2}))?\s?(am|pm)?$/.exec(written)
  const hours = found ? (Number(found[1]) % (found[3] ? 12 : 100)) + (found[3] === 'pm' ? 12 : 0) : 99
  const minutes = Number(found?.[2] ?? 0)
  if (hours > 23 || minutes > 59) return { problem: 'Write a time such as 10:40.' }
  return { time: `${pad(hours)}:${pad(minutes)}` }
}
