import { Graph, layout } from '@dagrejs/dagre'

/** What is drawn: places by their keys with how high each is, and which leads to which. */
export interface Drawing {
  places: readonly { key: string; height: number }[]
  arrows: readonly { from: string; to: string; asks: string }[]
}
export interface Point {
  x: number
  y: number
}
export interface Placed extends Point {
  key: string
  height: number
  /** From the left, the first is 0. */
  column: number
}
export interface Line {
  from: string
  to: string
  points: Point[]
  asks: string
  /** Where its words stand, and on which side of that. */
  words: Point & { anchor: 'start' | 'end' }
}
export interface Drawn {
  places: Placed[]
  lines: Line[]
  width: number
  height: number
}

export const WIDTH = 196
/** Between two columns: straight on, then over, then straight on to the next place. */
const BEFORE = 96
const OVER = 24
const AFTER = 96
export const GAP = BEFORE + OVER + AFTER
const BETWEEN = 18
/** Between two parts beside each other. */
const APART = 48
/** From the top of a place to its line, where arrows leave and arrive. */
export const LINE = 25

/**
 * Left to right in layers, as the layout library lays them out; arrows run along the lines of their places. What hangs together
 * stands together, one such part below another, and further ones beside them where there is room.
 * @param room How wide it may be without being scrolled.
 */
export function drawn(drawing: Drawing, room = 0): Drawn {
  const parts = connected(drawing).map(drawnPart)
  const least = Math.max(WIDTH, ...parts.map((one) => one.width))
  const columns = Math.max(1, Math.floor((room + APART) / (least + APART)))
  const target = parts.reduce((sum, one) => sum + one.height, 0) / columns
  const all: Drawn = { places: [], lines: [], width: 0, height: 0 }
  let [x, y, first] = [0, 0, 0]
  for (const part of parts) {
    if (y > 0 && y + part.height / 2 > target && x + 2 * least + APART <= Math.max(room, least)) {
      x += least + APART
      y = 0
      first = Math.max(0, ...all.places.map((one) => one.column + 1))
    }
    const moved = (one: Point) => ({ x: one.x + x, y: one.y + y })
    all.places.push(...part.places.map((one) => ({ ...one, ...moved(one), column: one.column + first })))
    all.lines.push(
      ...part.lines.map((one) => ({
        ...one,
        points: one.points.map(moved),
        words: { ...one.words, ...moved(one.words) },
      })),
    )
    y += part.height
    all.width = Math.max(all.width, x + part.width)
    all.height = Math.max(all.height, y)
  }
  return all
}

/** The parts of a drawing that hang together, in the order in which their first place stands. */
function connected({ places, arrows }: Drawing): Drawing[] {
  const part = new Map(places.map((one, n) => [one.key, n]))
  const known = arrows.filter((one) => part.has(one.from) && part.has(one.to))
  for (let changed = true; changed;) {
    changed = false
    for (const { from, to } of known) {
      const least = Math.min(part.get(from)!, part.get(to)!)
      if (part.get(from) !== least || part.get(to) !== least) {
        part.set(from, least).set(to, least)
        changed = true
      }
    }
  }
  return [...new Set(places.map((one) => part.get(one.key)!))].map((n) => ({
    places: places.filter((one) => part.get(one.key) === n),
    arrows: known.filter((one) => part.get(one.from) === n),
  }))
}

function drawnPart({ places, arrows }: Drawing): Drawn {
  const graph = new Graph({ multigraph: false })
  graph.setGraph({ rankdir: 'LR', ranksep: GAP, nodesep: BETWEEN, marginx: 0, marginy: 4 })
  graph.setDefaultEdgeLabel(() => ({}))
  for (const { key, height } of places) graph.setNode(key, { width: WIDTH, height })
  const shown = arrows.filter((one) => one.from !== one.to)
  for (const { from, to } of shown) graph.setEdge(from, to)
  layout(graph)
  const columns = [...new Set(places.map(({ key }) => Math.round(graph.node(key).x)))].sort((a, b) => a - b)
  const placed = places.map(({ key, height }) => {
    const { x, y } = graph.node(key)
    return { key, height, x: x - WIDTH / 2, y: y - height / 2, column: columns.indexOf(Math.round(x)) }
  })
  const at = new Map(placed.map((one) => [one.key, one]))
  const lines = shown.map((arrow) => {
    const bends = (graph.edge(arrow.from, arrow.to)?.points ?? []) as Point[]
    return lineOf(arrow, at.get(arrow.from)!, at.get(arrow.to)!, bends, columns, shown)
  })
  return {
    places: placed,
    lines,
    width: Math.max(WIDTH, ...placed.map((one) => one.x + WIDTH)),
    height: Math.max(0, ...placed.map((one) => one.y + one.height)) + BETWEEN,
  }
}

function lineOf(
  { from, to, asks }: Drawing['arrows'][number],
  source: Placed,
  target: Placed,
  bends: readonly Point[],
  columns: readonly number[],
  all: Drawing['arrows'],
): Line {
  const [start, end] = [
    { x: source.x + WIDTH, y: source.y + LINE },
    { x: target.x, y: target.y + LINE },
  ]
  // Against the reading direction, where things wait for one another: around below.
  if (end.x <= start.x) {
    const below = Math.max(source.y + source.height, target.y + target.height) + BETWEEN / 2
    const points = [
      start,
      { x: start.x + OVER, y: start.y },
      { x: start.x + OVER, y: below },
      { x: end.x - OVER, y: below },
      { x: end.x - OVER, y: end.y },
      end,
    ]
    return { from, to, asks, points, words: { x: start.x + OVER + 4, y: below - 4, anchor: 'start' } }
  }
  const points = [start]
  let y = start.y
  for (let column = source.column + 1; column <= target.column; column++) {
    const left = columns[column]! - WIDTH / 2
    const next = column === target.column ? end.y : along(bends, columns[column]!)
    points.push({ x: left - AFTER - OVER, y }, { x: left - AFTER, y: next })
    y = next
    if (column < target.column) points.push({ x: left + WIDTH, y })
  }
  points.push(end)
  return { from, to, asks, points, words: wordsAt(from, to, start, end, all) }
}

/** How high a line of bends is at a place from the left. */
function along(bends: readonly Point[], x: number): number {
  const after = bends.findIndex((one) => one.x >= x)
  if (after <= 0) return bends[after < 0 ? bends.length - 1 : 0]?.y ?? 0
  const [a, b] = [bends[after - 1]!, bends[after]!]
  return a.x === b.x ? b.y : a.y + ((b.y - a.y) * (x - a.x)) / (b.x - a.x)
}

/** Where a line has its run to itself: before what it leads to, or else behind where it comes from. */
function wordsAt(from: string, to: string, start: Point, end: Point, all: Drawing['arrows']): Line['words'] {
  const arriving = all.filter((one) => one.to === to)
  const leaving = all.filter((one) => one.from === from)
  return arriving.length === 1 || leaving.length > 1
    ? {
        x: end.x - 6,
        y:
          end.y -
          6 -
          13 *
            Math.max(
              0,
              arriving.findIndex((one) => one.from === from),
            ),
        anchor: 'end',
      }
    : { x: start.x + 6, y: start.y - 6, anchor: 'start' }
}

const cross = (a: Point, b: Point, c: Point) => (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)
const meets = (a: Point, b: Point, c: Point, d: Point) =>
  cross(a, b, c) * cross(a, b, d) < 0 && cross(c, d, a) * cross(c, d, b) < 0

/** How often lines cross one another; two that begin or end at one place do not cross there. */
export function crossings(lines: readonly { points: readonly Point[] }[]): number {
  let found = 0
  lines.forEach((one, n) => {
    for (const other of lines.slice(n + 1))
      for (let i = 1; i < one.points.length; i++)
        for (let j = 1; j < other.points.length; j++)
          if (meets(one.points[i - 1]!, one.points[i]!, other.points[j - 1]!, other.points[j]!)) found++
  })
  return found
}
