import type { Schemas } from '../../foundation/api/client'
import type { Card } from './useSections'

type Unit = Schemas['UnitHere']
type Lesson = Schemas['LessonHere']

/** A unit or a lesson of a section that is looked at. */
export type Place = { of: 'unit'; unit: Unit } | { of: 'lesson'; unit: Unit; lesson: Lesson }

/** What can be otherwise in it. */
export type What = 'place' | 'length' | 'pin' | 'hold' | 'skip'

export const waysOf = (place: Place): { what: What; words: string }[] => [
  ...(place.of === 'unit' ? [{ what: 'place' as const, words: 'comes as number' }] : []),
  ...(place.of === 'lesson'
    ? [
        { what: 'length' as const, words: 'lasts' },
        { what: 'pin' as const, words: 'is fixed to' },
        { what: 'place' as const, words: 'comes after' },
      ]
    : []),
  { what: 'skip', words: 'is dropped here' },
  { what: 'hold', words: 'is kept back' },
]

export const idOf = (place: Place): number => (place.of === 'unit' ? place.unit.id : place.lesson.id)

/** The version of the difference that a field has; 0: it is as in the course. */
export const versionOf = (card: Card, place: Place, field: string): number =>
  card.differences.find(
    (one) => one.kind === 'field' && one.of === place.of && one.target === idOf(place) && one.field === field,
  )?.version ?? 0

/** All lessons of a section, in its order. */
export const lessonsOf = (card: Card): Lesson[] => card.units.flatMap((unit) => unit.lessons)
