import type { Schemas } from '../../foundation/api/client'

export type Cell = Schemas['DatesCell']
export type Field = 'opens' | 'due'
export type DateChange = Schemas['DifferenceChange']

/** A cell that is being looked at: an item, a section, and which of its dates. */
export interface Place {
  item: number
  section: number
  field: Field
}

/** How a section has a date otherwise than the course; undefined: it has it as the course does. */
export const differenceOf = (cell: Cell, field: string) => cell.differs.find((one) => one.field === field)

/** The change that gives some sections a date of their own, or puts them back. */
export function changesOf(
  place: Place,
  answer: Schemas['DatesAnswer'],
  sections: number[],
  to: { date: string; time: string } | null,
): DateChange[] {
  const row = answer.units.flatMap((unit) => unit.items).find((one) => one.item === place.item)
  if (!row) return []
  return sections.flatMap((section) => {
    const at = answer.sections.findIndex((one) => one.id === section)
    const cell = row.cells[at]
    if (!cell || (!to && !differenceOf(cell, place.field))) return []
    return [
      {
        section,
        of: 'item',
        target: place.item,
        field: place.field,
        putBack: to === null,
        value: to ? { at: 'fixed', ...to } : null,
        version: differenceOf(cell, place.field)?.version ?? 0,
      },
    ]
  })
}
