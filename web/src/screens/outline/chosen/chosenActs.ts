import type { Schemas } from '../../../foundation/api/client'
import type { ItemRow, Row } from '../outlineRows'

/** What can be done to several items at once. */
export type Act = 'opens' | 'due' | 'closes' | 'purpose' | 'condition' | 'whom' | 'hold' | 'move'

export const actWords: Record<Act, string> = {
  opens: 'when they open',
  due: 'when they are due',
  closes: 'when they close',
  purpose: 'what they are for',
  condition: 'condition',
  whom: 'for whom',
  hold: 'keep back',
  move: 'move',
}

type Request = Schemas['ChangeItemsRequest']

/** A request to change items as they were read; what is asked for stands beside them. */
export const requestOf = (items: readonly ItemRow[], change: Omit<Request, 'items'>): Request => ({
  items: items.map((item) => ({ item: item.id, version: item.version })),
  ...change,
})

/** The places several items can go to, each by its key: lessons and units, to their end. */
export function placesOf(rows: readonly Row[], chosen: ReadonlySet<number>) {
  return rows.flatMap((row) => {
    if (row.level === 'item') return []
    const lesson = row.level === 'lesson' ? row.lesson : null
    const last = (lesson ?? row.unit).items.filter((item) => !chosen.has(item.id)).at(-1)
    return [
      {
        key: row.key,
        title: lesson ? lesson.title : `${row.unit.title}, on the unit itself`,
        note: lesson ? row.unit.title : '',
        place: { unit: row.unit.id, lesson: lesson?.id ?? null, after: last?.id ?? null },
      },
    ]
  })
}
