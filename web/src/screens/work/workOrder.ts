import type { Schemas } from '../../foundation/api/client'

type Piece = Schemas['WorkPiece']

/** What Work shows: what was handed in, who has not, or who has nothing to go on with. */
export const VIEWS = { 'handed-in': 'handed in', missing: 'not handed in', 'nothing-open': 'nothing open' } as const
export type View = keyof typeof VIEWS

/** In what order pieces are read. */
export type Order = 'frees' | 'oldest' | 'item' | 'name'

/** @param item What the course calls an item. */
export const ordersOf = (item: string): { value: Order; title: string }[] => [
  { value: 'frees', title: 'what frees most' },
  { value: 'oldest', title: 'the oldest' },
  { value: 'item', title: `by ${item}` },
  { value: 'name', title: 'by name' },
]

const cameTooLate = (piece: Piece) => piece.work === null && !piece.quiz
const waits = (piece: Piece) => (piece.back || cameTooLate(piece) ? 2 : piece.ready ? 1 : 0)
const byText = (one: string, other: string) => one.localeCompare(other, 'en', { numeric: true })

/** Pieces in an order; those that wait come before those that do not. What frees most is as they come. */
export function inOrder(pieces: readonly Piece[], order: Order): Piece[] {
  const by: Record<Order, (one: Piece, other: Piece) => number> = {
    frees: () => 0,
    oldest: (one, other) => byText(one.handedInAt.instant, other.handedInAt.instant),
    item: (one, other) => byText(one.code, other.code),
    name: (one, other) => byText(one.name, other.name),
  }
  return [...pieces].sort((one, other) => waits(one) - waits(other) || by[order](one, other))
}

/** What a row of the list says beside the name: only what is not as usual. */
export function standing(piece: Piece): { words: string; isAccent: boolean } {
  if (piece.back)
    return { words: piece.quiz ? 'read' : piece.back.again ? 'to try again' : 'given back', isAccent: false }
  if (piece.ready) return { words: 'ready', isAccent: true }
  if (piece.reader) return { words: 'being read', isAccent: false }
  if (cameTooLate(piece)) return { words: 'came too late', isAccent: false }
  if (piece.frees.length)
    return { words: `frees ${piece.frees[0]}${piece.frees.length > 1 ? ' …' : ''}`, isAccent: true }
  if (piece.n > 1)
    return { words: piece.n === 2 ? '2nd try' : piece.n === 3 ? '3rd try' : `${piece.n}th try`, isAccent: true }
  return piece.late ? { words: 'late', isAccent: true } : { words: '', isAccent: false }
}

/** When a piece that is ready goes back by itself; empty: when somebody gives it back. */
export const goesBack = (ready: Schemas['WorkReady']): string =>
  ready.goesAt
    ? `goes back on ${ready.goesAt.words}`
    : ready.withAll
      ? 'goes back once every piece of the same item is ready'
      : ''

/** How long it has been waiting. */
export const lain = (days: number): string => (days === 0 ? 'today' : `${days} d`)
