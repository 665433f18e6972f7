/** When an item opens, is due or closes, as it is stored; and as it is chosen on the screen. */
export interface Anchor {
  at: string
  of?: string
  meetings?: number
  weeks?: number
  days?: number
  classDays?: number
  clock?: string
  date?: string
  time?: string
}

/** The choices there are. What was set otherwise stays as it is until another is chosen. */
export type TimingKind = 'none' | 'lesson-start' | 'lesson-end' | 'classes-after' | 'days-after' | 'on-date' | 'other'

export interface TimingChoice {
  kind: TimingKind
  /** So many classes or days. */
  count: number
  date: string
  time: string
}

export const timingWords = (lesson: string): Record<TimingKind, string> => ({
  none: 'no time set',
  'lesson-start': `at the start of the ${lesson}`,
  'lesson-end': `at the end of the ${lesson}`,
  'classes-after': `classes after the ${lesson}, at their start`,
  'days-after': `days after the ${lesson}, at`,
  'on-date': 'on a date',
  other: 'as it is set',
})

const plain: TimingChoice = { kind: 'none', count: 1, date: '', time: '18:00' }
const only = (anchor: Anchor, ...members: (keyof Anchor)[]) =>
  (Object.keys(anchor) as (keyof Anchor)[]).every((member) => member === 'at' || members.includes(member))

/** The choice that an anchor is. */
export function choiceOf(anchor: Anchor | null): TimingChoice {
  if (!anchor) return plain
  if (anchor.at === 'lesson-start' && only(anchor)) return { ...plain, kind: 'lesson-start' }
  if (anchor.at === 'lesson-end' && only(anchor)) return { ...plain, kind: 'lesson-end' }
  if (anchor.at === 'lesson-end' && only(anchor, 'meetings', 'clock') && (anchor.meetings ?? 0) > 0)
    if ((anchor.clock ?? 'meeting-start') === 'meeting-start')
      return { ...plain, kind: 'classes-after', count: anchor.meetings! }
  if (anchor.at === 'lesson-end' && only(anchor, 'days', 'clock') && (anchor.days ?? 0) > 0)
    if (/^\d\d:\d\d$/.test(anchor.clock ?? ''))
      return { ...plain, kind: 'days-after', count: anchor.days!, time: anchor.clock! }
  if (anchor.at === 'fixed' && only(anchor, 'date', 'time'))
    return { ...plain, kind: 'on-date', date: anchor.date!, time: anchor.time! }
  return { ...plain, kind: 'other' }
}

/** The anchor that a choice is; undefined: it is not whole yet. */
export function anchorOf(choice: TimingChoice): Anchor | null | undefined {
  switch (choice.kind) {
    case 'none':
      return null
    case 'lesson-start':
    case 'lesson-end':
      return { at: choice.kind }
    case 'classes-after':
      return choice.count > 0 ? { at: 'lesson-end', meetings: choice.count, clock: 'meeting-start' } : undefined
    case 'days-after':
      return choice.count > 0 && choice.time ? { at: 'lesson-end', days: choice.count, clock: choice.time } : undefined
    case 'on-date':
      return choice.date && choice.time ? { at: 'fixed', date: choice.date, time: choice.time } : undefined
    default:
      return undefined
  }
}
