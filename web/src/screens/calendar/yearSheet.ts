import type { Schemas } from '../../foundation/api/client'

/** Days of a sheet, from one to another, whichever was taken first. */
export interface Stretch {
  anchor: string
  head: string
}

export const firstOf = ({ anchor, head }: Stretch) => (anchor < head ? anchor : head)
export const lastOf = ({ anchor, head }: Stretch) => (anchor < head ? head : anchor)
export const holds = (stretch: Stretch | null, date: string) =>
  stretch !== null && firstOf(stretch) <= date && date <= lastOf(stretch)

/** Where a key leads from a day: a day on or back, or the same day of another month; it stays where there is none. */
export function step(months: Schemas['CalendarMonth'][], date: string, key: string): string {
  const days = months.flatMap((month) => month.days)
  const at = days.findIndex((day) => day.date === date)
  if (key === 'ArrowLeft') return days[at - 1]?.date ?? date
  if (key === 'ArrowRight') return days[at + 1]?.date ?? date
  const row = months.findIndex((month) => month.days.some((day) => day.date === date))
  if (key === 'Home') return months[row]!.days[0]!.date
  if (key === 'End') return months[row]!.days.at(-1)!.date
  const other = months[row + (key === 'ArrowUp' ? -1 : 1)]
  const place = Number(date.slice(8)) - 1
  return other ? other.days[Math.min(place, other.days.length - 1)]!.date : date
}

export interface PeriodDraft {
  name: string
  start: string
  end: string
}

/** A mark as it is written in. */
export interface MarkDraft {
  id: number | null
  version: number
  kind: 'closure' | 'extra' | 'special'
  first: string
  last: string
  name: string
  runs: string
  own: boolean
  periods: PeriodDraft[]
}

/** A new mark of some days, as it is most likely meant: a single day without classes is to have some. */
export function proposed(calendar: Schemas['CalendarAnswer'], stretch: Stretch): MarkDraft {
  const [first, last] = [firstOf(stretch), lastOf(stretch)]
  const state = calendar.months.flatMap((month) => month.days).find((day) => day.date === first)?.state
  return {
    id: null,
    version: 0,
    kind: first === last && state === 'free' ? 'extra' : 'closure',
    first,
    last,
    name: '',
    runs: '',
    own: false,
    periods: [],
  }
}

export const draftOf = (mark: Schemas['CalendarMark']): MarkDraft => ({
  id: mark.id,
  version: mark.version,
  kind: mark.kind as MarkDraft['kind'],
  first: mark.first,
  last: mark.last,
  name: mark.name,
  runs: mark.runs ?? '',
  own: mark.periods !== null,
  periods: periodsOf(mark.periods),
})

export const periodsOf = (periods: unknown): PeriodDraft[] =>
  ((periods ?? []) as PeriodDraft[]).map(({ name, start, end }) => ({ name, start, end }))

const whole = (periods: PeriodDraft[]) =>
  periods.every((period) => period.name.trim() !== '' && period.start !== '' && period.end > period.start)

/** As it is sent; null: something is not yet said whole. */
export function markOf(draft: MarkDraft): Schemas['DayMark'] | null {
  const special = draft.kind === 'special'
  if (
    !draft.first ||
    !draft.last ||
    (!special && !draft.name.trim()) ||
    (special && draft.own && !whole(draft.periods))
  )
    return null
  if (special && !draft.runs && !draft.own && !draft.name.trim()) return null
  return {
    id: draft.id,
    version: draft.version,
    gone: false,
    kind: draft.kind,
    first: draft.first,
    last: draft.kind === 'closure' ? draft.last : draft.first,
    name: draft.name.trim(),
    runs: special && draft.runs ? draft.runs : null,
    periods: special && draft.own ? (draft.periods as unknown as Schemas['DayMark']['periods']) : null,
  }
}

/** Taking a mark out. */
export const goneOf = (mark: Schemas['CalendarMark']): Schemas['DayMark'] => ({
  id: mark.id,
  version: mark.version,
  gone: true,
  kind: mark.kind,
  first: mark.first,
  last: mark.last,
  name: mark.name,
  runs: null,
  periods: null,
})

/** The term's own fields as they are written in. */
export interface TermDraft {
  first: string
  last: string
  weekdays: string[]
  kind: 'weekly' | 'weeks' | 'days'
  labels: string
  /** Weeks without a class day take no letter; closed days take one. */
  count: boolean
  periods: PeriodDraft[]
  offDays: string
}

type RotationJson = { kind?: TermDraft['kind']; labels?: string[]; count?: string; closures?: string }

export function termDraftOf(calendar: Schemas['CalendarAnswer']): TermDraft {
  const rotation = calendar.rotation as RotationJson
  return {
    first: calendar.first,
    last: calendar.last,
    weekdays: [...calendar.weekdays],
    kind: rotation.kind ?? 'weekly',
    labels: (rotation.labels ?? []).join(', '),
    count: rotation.count === 'teaching' || rotation.closures === 'count',
    periods: periodsOf(calendar.periods),
    offDays: calendar.offDays,
  }
}

const WEEK = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun']

/** As it is sent; null: something is not yet said whole. */
export function termOf(draft: TermDraft, version: number): Schemas['SetTermRequest'] | null {
  const labels = draft.labels
    .split(',')
    .map((label) => label.trim())
    .filter((label) => label !== '')
  if (!draft.first || !draft.last || !whole(draft.periods) || (draft.kind !== 'weekly' && labels.length === 0))
    return null
  const rotation: RotationJson =
    draft.kind === 'weekly'
      ? { kind: 'weekly' }
      : draft.kind === 'weeks'
        ? { kind: 'weeks', labels, count: draft.count ? 'teaching' : 'calendar' }
        : { kind: 'days', labels, closures: draft.count ? 'count' : 'pause' }
  return {
    first: draft.first,
    last: draft.last,
    weekdays: WEEK.filter((day) => draft.weekdays.includes(day)),
    rotation: rotation as Schemas['SetTermRequest']['rotation'],
    periods: draft.periods as unknown as Schemas['SetTermRequest']['periods'],
    offDays: draft.offDays,
    version,
  }
}

/** The periods of an ordinary day. */
export const ordinaryPeriods = (calendar: Pick<Schemas['CalendarAnswer'], 'periods'>) =>
  calendar.periods as unknown as { name: string; start: string; end: string }[]
