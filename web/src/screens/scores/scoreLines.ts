import type { Schemas } from '../../foundation/api/client'

export type Answer = Schemas['ScoresAnswer']
export type Cell = Schemas['ScoreCell']
export type Student = Schemas['ScoreLine']
export type Section = Schemas['ScoreSection']

/** What a cell tells. */
export type Told = 'points' | 'percent' | 'state'

/** Which items are shown. */
export type Which = 'for-marks' | 'scored' | 'all'

/** A line of the table: how a section went, or one of its students. */
export type Line = { section: Section } | { section: Section; student: Student }

/** What something is for. */
export const purposeWords = (purpose: string): string =>
  ({ 'for-marks': 'for marks', practice: 'practice' })[purpose] ?? 'to read'

/** The places of the items that are shown, in the order of the course. */
export const shownItems = (answer: Answer, which: Which): number[] =>
  answer.items.flatMap((item, place) =>
    which === 'all' || (which === 'scored' ? item.outOf !== null : item.purpose === 'for-marks') ? [place] : [],
  )

/** How each section went, one under another; then their students. */
export const linesOf = (sections: readonly Section[]): Line[] => [
  ...sections.map((section): Line => ({ section })),
  ...sections.flatMap((section) => section.students.map((student): Line => ({ section, student }))),
]

/** What stands in a cell. */
export const cellWords = (cell: Cell, told: Told): string =>
  told === 'state' ? cell.words : ((told === 'percent' ? (cell.percent ?? cell.points) : cell.points) ?? cell.words)

/** How many cells of the shown items say so. */
export const countOf = (sections: readonly Section[], places: readonly number[], words: string): number =>
  sections
    .flatMap((section) => section.students)
    .reduce((sum, student) => sum + places.filter((place) => student.cells[place]!.words === words).length, 0)
