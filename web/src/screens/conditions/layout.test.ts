import { Graph, layout } from '@dagrejs/dagre'
import { describe, expect, it } from 'vitest'
import { type Drawing, GAP, WIDTH, crossings, drawn } from './layout'

/** Small whole numbers in a fixed order, so that a failure can be looked at again. */
function numbers(seed: number) {
  let state = seed * 2654435761 + 1
  return (below: number) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

/** Each place waits for some of those shortly before it, as in a course. */
function generated(seed: number): Drawing {
  const next = numbers(seed)
  const size = 20 + next(40)
  const places = Array.from({ length: size }, (_, n) => ({ key: `i${n}`, height: 66 }))
  const arrows = places.flatMap((_, n) => {
    const from = new Set(Array.from({ length: n === 0 ? 0 : next(3) }, () => n - 1 - next(Math.min(n, 8))))
    return [...from].map((m) => ({ from: `i${m}`, to: `i${n}`, asks: 'given back' }))
  })
  return { places, arrows }
}

/** As often as the library's own lines cross. */
function ofLibrary({ places, arrows }: Drawing): number {
  const graph = new Graph()
  graph.setGraph({ rankdir: 'LR', ranksep: GAP, nodesep: 18 })
  graph.setDefaultEdgeLabel(() => ({}))
  for (const { key, height } of places) graph.setNode(key, { width: WIDTH, height })
  for (const { from, to } of arrows) graph.setEdge(from, to)
  layout(graph)
  return crossings(
    arrows.map(({ from, to }) => ({ points: graph.edge(from, to)!.points as { x: number; y: number }[] })),
  )
}

describe('the picture of conditions', () => {
  it('crosses at most 1.2 times as often as the layout library’s own lines, over 20 courses', () => {
    const all = Array.from({ length: 20 }, (_, n) => generated(n + 1))
    const ours = all.map((one) => crossings(drawn(one).lines))
    const library = all.map(ofLibrary)
    const sum = (list: number[]) => list.reduce((a, b) => a + b, 0)
    expect(sum(library)).toBeGreaterThan(20)
    expect(sum(ours) / sum(library)).toBeLessThanOrEqual(1.2)
    ours.forEach((found, n) => expect(found).toBeLessThanOrEqual(Math.max(library[n]! * 1.2, library[n]! + 2)))
  })

  it('crosses nowhere in the demo course: steps, a branch by score and one by choice', () => {
    const waits: Record<string, string[]> = {
      '2.12': ['2.15'],
      '3.03': ['3.08'],
      '3.11': ['3.12', '3.13'],
      '5.04': ['5.09', '5.10', '5.11', '5.12', '5.13', '5.14'],
      '5.07': ['5.15'],
      '5.15': ['5.18'],
    }
    const arrows = Object.entries(waits).flatMap(([from, to]) =>
      to.map((key) => ({ from, to: key, asks: 'given back' })),
    )
    const keys = [...new Set(arrows.flatMap(({ from, to }) => [from, to]))].toSorted()
    expect(keys).toHaveLength(17)
    const picture = drawn({ places: keys.map((key) => ({ key, height: 66 })), arrows })
    expect(crossings(picture.lines)).toBe(0)
  })

  it('counts a crossing once, and none where lines begin together', () => {
    const line = (...points: [number, number][]) => ({ points: points.map(([x, y]) => ({ x, y })) })
    expect(crossings([line([0, 0], [10, 10]), line([0, 10], [10, 0])])).toBe(1)
    expect(crossings([line([0, 0], [10, 10]), line([0, 0], [10, 0])])).toBe(0)
  })

  it('puts what waits to the right of what it waits for, and nothing over anything else', () => {
    const drawing = generated(7)
    const { places } = drawn(drawing)
    const at = new Map(places.map((one) => [one.key, one]))
    for (const { from, to } of drawing.arrows)
      expect(at.get(to)!.x).toBeGreaterThanOrEqual(at.get(from)!.x + WIDTH + GAP)
    for (const one of places)
      for (const other of places)
        if (one.key < other.key && one.column === other.column)
          expect(Math.abs(one.y - other.y)).toBeGreaterThanOrEqual(66)
  })

  it('puts parts that do not hang together beside each other where there is room, and below each other where not', () => {
    const places = ['a', 'b', 'c', 'd'].map((key) => ({ key, height: 66 }))
    const arrows = [
      { from: 'a', to: 'b', asks: 'opened' },
      { from: 'c', to: 'd', asks: 'opened' },
    ]
    const narrow = drawn({ places, arrows }, 700)
    const wide = drawn({ places, arrows }, 1300)
    expect(narrow.height).toBeGreaterThan(wide.height)
    expect(wide.width).toBeLessThanOrEqual(1300)
    expect(narrow.width).toBeLessThanOrEqual(700)
    expect(wide.places.map((one) => one.column)).toEqual([0, 1, 2, 3])
    expect(new Set(wide.places.map((one) => one.y)).size).toBe(1)
  })

  it('draws what goes in circles too, and leaves out what is not shown', () => {
    const places = ['a', 'b'].map((key) => ({ key, height: 66 }))
    const arrows = [
      { from: 'a', to: 'b', asks: 'opened' },
      { from: 'b', to: 'a', asks: 'opened' },
      { from: 'gone', to: 'a', asks: 'opened' },
    ]
    const { lines, places: placed } = drawn({ places, arrows })
    expect(lines.map(({ from, to }) => `${from}${to}`)).toEqual(['ab', 'ba'])
    expect(new Set(placed.map((one) => one.column)).size).toBe(2)
  })
})
