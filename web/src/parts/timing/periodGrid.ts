import type { SlotDraft } from './slots'

/** A day of the rotation, as a row of the grid: in a rotation of weeks all weeks of one weekday stand in one row. */
export interface GridRow {
  words: string
  /** The labels of its days, a column group each. */
  labels: string[]
}

/** A day a class can be held on. */
export interface DayChoice {
  label: string
  words: string
}

const OF_WEEK = /^(.+)-(mon|tue|wed|thu|fri|sat|sun)$/
const WEEKDAYS: Record<string, string> = {
  mon: 'Mon',
  tue: 'Tue',
  wed: 'Wed',
  thu: 'Thu',
  fri: 'Fri',
  sat: 'Sat',
  sun: 'Sun',
}

/** The rows of the grid, and the letters of the weeks where there are several. */
export function gridOf(days: readonly DayChoice[]): { weeks: string[]; rows: GridRow[] } {
  const ofWeek = days.flatMap((day) => {
    const found = OF_WEEK.exec(day.label)
    return found ? [{ week: found[1]!, weekday: found[2]!, label: day.label }] : []
  })
  if (ofWeek.length === 0)
    return {
      weeks: [],
      rows: days.map((day) => ({ words: WEEKDAYS[day.label] ?? day.words, labels: [day.label] })),
    }
  const weeks = [...new Set(ofWeek.map((one) => one.week))]
  const weekdays = [...new Set(ofWeek.map((one) => one.weekday))]
  return {
    weeks,
    rows: weekdays.map((weekday) => ({
      words: WEEKDAYS[weekday]!,
      labels: weeks.map((week) => `${week}-${weekday}`),
    })),
  }
}

/** Whether a time is one that the grid shows whole: in periods, counting once, all through the term. */
export const isPlain = (draft: SlotDraft) => !draft.own && draft.counts === 1 && !draft.from && !draft.until

/** The times that the grid does not show. */
export const besideGrid = (drafts: readonly SlotDraft[]) => drafts.filter((draft) => !isPlain(draft))

const holdsOn = (draft: SlotDraft, label: string) => draft.day === label || draft.day === OF_WEEK.exec(label)?.[2]

/** Whether a period of a day is one of a section's. */
export const isIn = (drafts: readonly SlotDraft[], label: string, period: string) =>
  drafts.some((draft) => isPlain(draft) && holdsOn(draft, label) && draft.periods.includes(period))

/**
 * The times after a period of a day was put in or taken out. Periods that follow each other are one class; what is the same in
 * every week stands there once.
 */
export function toggled(
  drafts: readonly SlotDraft[],
  rows: readonly GridRow[],
  periods: readonly string[],
  label: string,
  period: string,
): SlotDraft[] {
  const chosen = (day: string, name: string) => (day === label && name === period) !== isIn(drafts, day, name)
  const plain = rows.flatMap((row) => {
    const stretches = row.labels.map((day) => stretchesOf(periods.map((name) => (chosen(day, name) ? name : null))))
    const weekday = OF_WEEK.exec(row.labels[0]!)?.[2]
    const alike = stretches.every((one) => JSON.stringify(one) === JSON.stringify(stretches[0]))
    return weekday && alike
      ? stretches[0]!.map((those) => slotOf(weekday, those))
      : row.labels.flatMap((day, n) => stretches[n]!.map((those) => slotOf(day, those)))
  })
  return [...plain, ...besideGrid(drafts)]
}

const slotOf = (day: string, periods: string[]): SlotDraft => ({
  day,
  own: false,
  periods,
  start: '',
  end: '',
  counts: 1,
  from: '',
  until: '',
})

function stretchesOf(names: (string | null)[]): string[][] {
  const stretches: string[][] = [[]]
  for (const name of names)
    if (name === null) stretches.push([])
    else stretches.at(-1)!.push(name)
  return stretches.filter((those) => those.length > 0)
}

/** When a section meets, in short: "Mon P1, Wed P3–P4, B Fri P2". */
export function inShort(drafts: readonly SlotDraft[], days: readonly DayChoice[]): string {
  const words = (label: string) => {
    const found = OF_WEEK.exec(label)
    return found
      ? `${found[1]} ${WEEKDAYS[found[2]!]}`
      : (WEEKDAYS[label] ?? days.find((day) => day.label === label)?.words ?? label)
  }
  return drafts
    .map((draft) => {
      const when = draft.own
        ? `${draft.start}–${draft.end}`
        : draft.periods.length > 1
          ? `${draft.periods[0]}–${draft.periods.at(-1)}`
          : (draft.periods[0] ?? '')
      return `${words(draft.day)} ${when}`
    })
    .join(', ')
}

/** Reads such words back: "mon p1; Wed P3-P4". Null: something in it is no time of this term. */
export function timesOf(text: string, days: readonly DayChoice[], periods: readonly string[]): SlotDraft[] | null {
  const labels = new Map(days.flatMap((day) => [[day.label.toLowerCase(), day.label] as const]))
  for (const day of days) {
    const weekday = OF_WEEK.exec(day.label)?.[2] ?? day.label
    labels.set(weekday.toLowerCase(), weekday)
  }
  const named = (word: string) => periods.findIndex((name) => name.toLowerCase() === word.toLowerCase())
  const slots: SlotDraft[] = []
  for (const part of text.split(/[,;+]/).map((one) => one.trim().toLowerCase())) {
    if (!part) continue
    const found = /^(?:(\S+)[ -])??([a-z]+|\d+)\.?\s+(\S+?)(?:\s*[-–]\s*(\S+))?$/.exec(part)
    if (!found) return null
    const day = found[2]!.length > 3 && !labels.has(found[2]!) ? found[2]!.slice(0, 3) : found[2]!
    const label = labels.get(found[1] ? `${found[1]}-${day}` : day)
    const [from, to] = [named(found[3]!), named(found[4] ?? found[3]!)]
    if (label === undefined || from < 0 || to < from) return null
    slots.push(slotOf(label, periods.slice(from, to + 1)))
  }
  return slots.length ? slots : null
}
