import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import type { Drawing } from './layout'

type Answer = Schemas['ConditionsAnswer']
export type Place = Schemas['ConditionPlace']
type Id = number

/** How many students stand where, before one place. */
export interface Count {
  before: number
  at: number
  past: number
  missed: number
  forFeedback: number
}

/** One thing in the picture: a place, or a unit folded up. */
export interface Shown {
  key: string
  title: string
  code: string
  /** The places it stands for: one, or all of a folded unit. */
  places: Place[]
  isFolded: boolean
}

export interface View {
  /** Only what is in this unit, and what leads there or comes from it; null: everything. */
  unit: string | null
  /** Units are drawn as one each. */
  folded: boolean
}

/** What is in view, in reading order. */
export function shownOf(answer: Answer, { unit, folded }: View): Shown[] {
  const inView = answer.places.filter(
    (place) =>
      unit === null ||
      place.unit === unit ||
      answer.arrows.some(
        ({ from, to }) =>
          (from === place.key && unitOf(answer, to) === unit) || (to === place.key && unitOf(answer, from) === unit),
      ),
  )
  if (!folded)
    return inView.map((place) => ({
      key: place.key,
      title: place.title,
      code: place.code,
      places: [place],
      isFolded: false,
    }))
  return [...new Set(inView.map((place) => place.unit))].map((title) => {
    const places = inView.filter((place) => place.unit === title)
    return { key: `unit ${title}`, title, code: '', places, isFolded: true }
  })
}

const unitOf = (answer: Answer, key: string) => answer.places.find((place) => place.key === key)?.unit

/** The arrows among what is shown; between two folded units as many as there are become one. */
export function arrowsOf(answer: Answer, shown: readonly Shown[]): Drawing['arrows'] {
  const home = new Map(shown.flatMap((one) => one.places.map((place) => [place.key, one.key] as const)))
  const found = new Map<string, { from: string; to: string; asks: string[] }>()
  for (const { from, to, asks } of answer.arrows) {
    const [a, b] = [home.get(from), home.get(to)]
    if (!a || !b || a === b) continue
    const key = `${a}\n${b}`
    const known = found.get(key) ?? { from: a, to: b, asks: [] }
    found.set(key, { ...known, asks: [...known.asks, asks] })
  }
  return [...found.values()].map(({ from, to, asks }) => ({
    from,
    to,
    asks: asks.length === 1 ? asks[0]! : counted(asks.length, 'condition'),
  }))
}

const none: Count = { before: 0, at: 0, past: 0, missed: 0, forFeedback: 0 }

/** How many of some sections stand where. */
export const countOf = (place: Place, sections: ReadonlySet<Id>): Count =>
  place.standing
    .filter((one) => sections.has(one.section))
    .reduce(
      (sum, one) => ({
        before: sum.before + one.before.length,
        at: sum.at + one.at.length,
        past: sum.past + one.past.length,
        missed: sum.missed + one.missed.length,
        forFeedback: sum.forFeedback + new Set(one.forFeedback.map((waits) => waits.student)).size,
      }),
      none,
    )

export const allOf = (count: Count) => count.before + count.at + count.past + count.missed

/** What a bar means, in words: who waits for somebody first. */
export function countWords(place: Place, count: Count): string {
  if (allOf(count) === 0) return 'for nobody here'
  const parts = [
    count.forFeedback > 0 ? `${count.forFeedback} wait for feedback` : '',
    count.before - count.forFeedback > 0 ? `${count.before - count.forFeedback} before` : '',
    count.at > 0 ? `${count.at} at it` : '',
    count.past > 0 ? `${count.past} ${place.of === 'item' ? 'past' : 'let in'}` : '',
    count.missed > 0 ? `${count.missed} missed it` : '',
  ]
  return parts.filter(Boolean).join(' · ')
}

export type Stand = 'before' | 'at' | 'past' | 'missed'
export const standWords: Record<Stand, string> = {
  before: 'Not open to them yet',
  at: 'Open to them, not done',
  past: 'Done',
  missed: 'Closed before they had done it',
}

/** Where one student stands; null: it is not for them. */
export function standOf(place: Place, student: Id): Stand | null {
  for (const one of place.standing)
    for (const stand of ['before', 'at', 'past', 'missed'] as const) if (one[stand].includes(student)) return stand
  return null
}

/** A place and all that leads to it. */
export function causesOf(arrows: Drawing['arrows'], key: string): Set<string> {
  const found = new Set([key])
  const open = [key]
  for (let next = open.pop(); next !== undefined; next = open.pop())
    for (const { from, to } of arrows)
      if (to === next && !found.has(from)) {
        found.add(from)
        open.push(from)
      }
  return found
}

/** A student's way: what they have done, and what is open to them because of it. */
export const wayOf = (answer: Answer, student: Id): Set<string> =>
  new Set(
    answer.places.filter((place) => ['at', 'past'].includes(standOf(place, student) ?? '')).map((place) => place.key),
  )

export interface Waits {
  place: Place
  students: { student: Id; section: Id; piece: Id; since: Schemas['Moment'] }[]
}

/** Where students wait for somebody, most first. */
export const waitsOf = (answer: Answer, sections: ReadonlySet<Id>): Waits[] =>
  answer.places
    .map((place) => ({
      place,
      students: place.standing
        .filter((one) => sections.has(one.section))
        .flatMap((one) => one.forFeedback.map((waits) => ({ ...waits, section: one.section }))),
    }))
    .filter((one) => one.students.length > 0)
    .sort((a, b) => b.students.length - a.students.length)
