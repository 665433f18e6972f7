/** A time at which a section meets, as it is written in: in periods, or at times of its own. */
export interface SlotDraft {
  day: string
  own: boolean
  periods: string[]
  start: string
  end: string
  counts: number
  from: string
  until: string
}

type Slot = {
  day: string
  periods?: string[]
  start?: string
  end?: string
  counts?: number
  from?: string
  until?: string
}

export const draftsOf = (slots: unknown): SlotDraft[] =>
  (slots as Slot[]).map((slot) => ({
    day: slot.day,
    own: slot.periods === undefined,
    periods: slot.periods ?? [],
    start: slot.start ?? '',
    end: slot.end ?? '',
    counts: slot.counts ?? 1,
    from: slot.from ?? '',
    until: slot.until ?? '',
  }))

/** One more time, proposed. */
export const another = (days: readonly { label: string }[], periods: readonly { name: string }[]): SlotDraft => ({
  day: days[0]?.label ?? 'mon',
  own: periods.length === 0,
  periods: periods.slice(0, 1).map((period) => period.name),
  start: '08:00',
  end: '09:00',
  counts: 1,
  from: '',
  until: '',
})

/** In the plan file's form; null: something is not yet said whole. */
export function slotsOf(drafts: SlotDraft[]): Slot[] | null {
  const slots = drafts.map((draft) => ({
    day: draft.day,
    ...(draft.own ? { start: draft.start, end: draft.end } : { periods: draft.periods }),
    ...(draft.counts !== 1 ? { counts: draft.counts } : {}),
    ...(draft.from ? { from: draft.from } : {}),
    ...(draft.until ? { until: draft.until } : {}),
  }))
  return drafts.every(whole) ? slots : null
}

const whole = (draft: SlotDraft) =>
  Number.isInteger(draft.counts) &&
  draft.counts >= 1 &&
  (draft.own ? draft.start !== '' && draft.end > draft.start : draft.periods.length > 0) &&
  (draft.from === '' || draft.until === '' || draft.until >= draft.from)
