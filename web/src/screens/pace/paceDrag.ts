import type { Schemas } from '../../foundation/api/client'
import { amount } from '../../parts/amount'

type Section = Schemas['PaceSection']
type Run = Schemas['PaceRun']

/** What a lesson of a section is to be: fixed to a date, or so long; null: as in the course again. */
export type Shape = { field: 'pin'; value: string | null } | { field: 'length'; value: number | null }

/** A lesson that is taken by one of its ends. */
export interface Drag {
  section: number
  place: number
  shape: Shape
  /** Where it would begin or end, in days from the ribbon's origin. */
  at: number
  /** What would be, in words that go on after the lesson's title. */
  words: string
}

/** The date of the class that begins nearest to a place; null: there is no class. */
export function dateNear(section: Section, at: number): { date: string; at: number; words: string } | null {
  let best: Section['classes'][number] | null = null
  for (const one of section.classes) if (best === null || Math.abs(one.at - at) < Math.abs(best.at - at)) best = one
  return best && { date: best.date, at: best.at, words: `is fixed to ${best.words.split(',')[0]}` }
}

/** How long a lesson would be if it ended at a place: the classes from its beginning on, at least one. */
export function lengthTo(section: Section, run: Run, at: number): { length: number; at: number } {
  const from = section.classes.filter((one) => one.at >= run.from! - 0.001)
  // A class belongs to it where the pointer is past its middle.
  const within = from.filter((one) => one.at + 0.02 < at)
  const last = within.at(-1) ?? from[0]
  return {
    length: Math.max(
      1,
      within.reduce((sum, one) => sum + one.counts, 0),
    ),
    at: last ? last.at + 0.04 : at,
  }
}

/** The request that gives a lesson its shape in one section. */
export function differenceOf(section: Section, run: Run, shape: Shape) {
  return {
    changes: [
      {
        section: section.id,
        of: 'lesson' as const,
        target: run.lesson,
        field: shape.field,
        putBack: shape.value === null,
        value: shape.value,
        version: shape.field === 'pin' ? run.pinVersion : run.lengthVersion,
      },
    ],
  }
}

/** A length in words that go on after the lesson's title. */
export const lastingWords = (length: number, unit: string): string => `lasts ${amount(length, unit)}`
