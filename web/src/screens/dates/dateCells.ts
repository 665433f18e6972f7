import type { Schemas } from '../../foundation/api/client'

export type Answer = Schemas['DatesAnswer']
export type Row = Schemas['DatesRow']
export type Cell = Schemas['DatesCell']
export type Field = 'opens' | 'due' | 'closes'
export type DateChange = Schemas['DifferenceChange']

export const fieldWords: Record<Field, string> = { opens: 'opens', due: 'is due', closes: 'closes' }

/** How a section has something otherwise than the course; undefined: it has it as the course does. */
export const differenceOf = (cell: Cell, field: string) => cell.differs.find((one) => one.field === field)

/** What is to be so in some cells: an anchor, or a mark such as kept back; put back: as in the course. */
export type To = { value: unknown } | 'put-back'

/** The change of one cell; null: there is nothing to put back. */
export function changeOf(
  answer: Answer,
  item: number,
  section: number,
  field: DateChange['field'],
  to: To,
): DateChange | null {
  const row = answer.units.flatMap((unit) => unit.items).find((one) => one.item === item)
  const cell = row?.cells[answer.sections.findIndex((one) => one.id === section)]
  if (!cell || cell.absent) return null
  const difference = differenceOf(cell, field)
  if (to === 'put-back' && !difference) return null
  return {
    section,
    of: 'item',
    target: item,
    field,
    putBack: to === 'put-back',
    value: to === 'put-back' ? null : to.value,
    version: difference?.version ?? 0,
  }
}

/** The changes of some items in some sections. */
export const changesOf = (
  answer: Answer,
  items: number[],
  sections: number[],
  field: DateChange['field'],
  to: To,
): DateChange[] =>
  items.flatMap((item) =>
    sections.map((section) => changeOf(answer, item, section, field, to)).filter((change) => change !== null),
  )
