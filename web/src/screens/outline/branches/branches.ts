/** What opens at which scores, in percent; without an end, at all scores on that side. */
export interface Branch {
  /** The item that opens. */
  item: string
  from: number | null
  below: number | null
}

export interface Stretch {
  from: number
  to: number
  /** How many open there. */
  opens: number
}

const lower = ({ from }: Branch) => from ?? 0
const upper = ({ below }: Branch) => below ?? Infinity

/** All scores from 0 to 100, cut wherever something begins or ends to open; 100 by itself where it differs. */
export function stretchesOf(branches: readonly Branch[]): Stretch[] {
  const cuts = branches.flatMap((one) => [lower(one), upper(one)]).filter((at) => at > 0 && at <= 100)
  const starts = [0, ...new Set(cuts.sort((a, b) => a - b))]
  return starts.map((from, n) => ({
    from,
    to: starts[n + 1] ?? 100,
    opens: branches.filter((one) => lower(one) <= from && upper(one) > from).length,
  }))
}

/** What does not fit, in words: scores at which nothing opens, or more than one thing. */
export function misfits(stretches: readonly Stretch[]): string[] {
  const last = stretches.at(-1)
  const range = (one: Stretch) =>
    one.from === 100 ? 'at 100 %' : one === last ? `from ${one.from} % up` : `from ${one.from} % to below ${one.to} %`
  return stretches.flatMap((one) =>
    one.opens === 0 ? [`Nothing opens ${range(one)}.`] : one.opens > 1 ? [`${one.opens} open ${range(one)}.`] : [],
  )
}

interface Node {
  item?: string
  scoreMin?: number
  scoreBelow?: number
  choice?: string
  picked?: string
}

/** The branch that a stored condition is, if it asks nothing but a score of that item. */
export function branchOf(place: { key: string; gate?: unknown }, of: string): Branch | null {
  const gate = place.gate as Node | null | undefined
  return gate?.item === of && (gate.scoreMin !== undefined || gate.scoreBelow !== undefined)
    ? { item: place.key, from: gate.scoreMin ?? null, below: gate.scoreBelow ?? null }
    : null
}

/** The option that a stored condition asks for, if it asks nothing but one of that choice. */
export function optionOf(place: { gate?: unknown }, of: string): string | null {
  const gate = place.gate as Node | null | undefined
  return gate?.choice === of ? (gate.picked ?? null) : null
}

/** Null: at which scores is not said, or none are left between both ends. */
export const gateOfBranch = ({ from, below }: Branch, of: string): Node | null =>
  (from === null && below === null) || (from !== null && below !== null && from >= below)
    ? null
    : { item: of, ...(from === null ? {} : { scoreMin: from }), ...(below === null ? {} : { scoreBelow: below }) }
