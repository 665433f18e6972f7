import { type Anchor, type TimingChoice, anchorOf, choiceOf } from '../timing/timing'

/** What can be asked of an item. */
export type Asked = Deed | 'score-min' | 'score-below' | 'score-between' | `picked:${string}`
export type Deed = 'opened' | 'ticked' | 'submitted' | 'returned'

/** One thing that must be so; what is said of other things than it is about is kept, but counts for nothing. */
export interface Leaf {
  kind: 'leaf'
  not: boolean
  about: 'item' | 'group' | 'lesson' | 'moment'
  item: string
  asked: Asked
  /** In percent, as it is stored. */
  min: number | null
  below: number | null
  /** Whether the latest attempt counts; null: not said, so the best. */
  latest: boolean | null
  group: string
  /** The lesson that is taught, or that a moment is measured from. */
  lesson: string
  timing: TimingChoice
  /** A moment that is set otherwise than it can be chosen here. */
  stored: Anchor | null
}

/** Several things, of which all, one or so many must be so. */
export interface Several {
  kind: 'several'
  not: boolean
  join: 'all' | 'any' | 'some'
  least: number
  parts: Part[]
}

export type Part = Leaf | Several

export interface Draft {
  root: Several
  /** Whether it stays open once it has opened; null: as is usual for what it asks. */
  latch: boolean | null
  /** What students see until then; null: as is usual. */
  whenLocked: 'show' | 'hide' | null
}

interface Node {
  all?: Node[]
  any?: Node[]
  atLeast?: number
  of?: Node[]
  not?: Node
  item?: string
  is?: Deed
  scoreMin?: number
  scoreBelow?: number
  using?: 'best' | 'latest'
  choice?: string
  picked?: string
  group?: string
  taught?: string
  from?: Anchor
  latch?: boolean
  whenLocked?: 'show' | 'hide'
}

const PICKED = 'picked:'
export const pickedIs = (option: string): Asked => `${PICKED}${option}`

export const newLeaf = (): Leaf => ({
  kind: 'leaf',
  not: false,
  about: 'item',
  item: '',
  asked: 'returned',
  min: 70,
  below: 70,
  latest: null,
  group: '',
  lesson: '',
  timing: { ...choiceOf({ at: 'fixed', date: '', time: '08:00' }) },
  stored: null,
})

export const newSeveral = (parts: Part[] = []): Several => ({
  kind: 'several',
  not: false,
  join: 'all',
  least: 1,
  parts,
})

function severalOf(node: Node): Several | null {
  const parts = node.all ?? node.any ?? node.of
  if (!parts) return null
  const join = node.all ? 'all' : node.any ? 'any' : 'some'
  return { ...newSeveral(parts.map(partOf)), join, least: node.atLeast ?? 1 }
}

function partOf(node: Node): Part {
  if (node.not) {
    const inner = partOf(node.not)
    return inner.not ? { ...newSeveral([inner]), not: true } : { ...inner, not: true }
  }
  const several = severalOf(node)
  if (several) return several
  const leaf = newLeaf()
  if (node.group !== undefined) return { ...leaf, about: 'group', group: node.group }
  if (node.taught !== undefined) return { ...leaf, about: 'lesson', lesson: node.taught }
  if (node.from) {
    const { of, ...anchor } = node.from
    const timing = choiceOf(anchor)
    return { ...leaf, about: 'moment', lesson: of ?? '', timing, stored: timing.kind === 'other' ? node.from : null }
  }
  if (node.choice !== undefined) return { ...leaf, item: node.choice, asked: pickedIs(node.picked!) }
  if (node.is) return { ...leaf, item: node.item!, asked: node.is }
  const [min, below] = [node.scoreMin ?? null, node.scoreBelow ?? null]
  return {
    ...leaf,
    item: node.item!,
    asked: min === null ? 'score-below' : below === null ? 'score-min' : 'score-between',
    min: min ?? leaf.min,
    below: below ?? leaf.below,
    latest: node.using === undefined ? null : node.using === 'latest',
  }
}

/** A stored condition as it is written on the screen. */
export function draftOf(gate: unknown): Draft {
  if (!gate) return { root: newSeveral(), latch: null, whenLocked: null }
  const { latch = null, whenLocked = null, ...node } = gate as Node
  return { root: severalOf(node) ?? newSeveral([partOf(node)]), latch, whenLocked }
}

/** Undefined: it is not whole yet. */
function leafNode(leaf: Leaf): Node | undefined {
  switch (leaf.about) {
    case 'group':
      return leaf.group ? { group: leaf.group } : undefined
    case 'lesson':
      return leaf.lesson ? { taught: leaf.lesson } : undefined
    case 'moment': {
      const anchor = leaf.timing.kind === 'other' ? leaf.stored : anchorOf(leaf.timing)
      if (!anchor) return undefined
      if (leaf.timing.kind === 'other' || leaf.timing.kind === 'on-date') return { from: anchor }
      return leaf.lesson ? { from: { ...anchor, of: leaf.lesson } } : undefined
    }
  }
  if (!leaf.item) return undefined
  if (leaf.asked.startsWith(PICKED)) return { choice: leaf.item, picked: leaf.asked.slice(PICKED.length) }
  if (!isScore(leaf.asked)) return { item: leaf.item, is: leaf.asked as Deed }
  const min = leaf.asked === 'score-below' ? undefined : leaf.min
  const below = leaf.asked === 'score-min' ? undefined : leaf.below
  if (min === null || below === null || (min !== undefined && below !== undefined && min >= below)) return undefined
  return {
    item: leaf.item,
    ...(min === undefined ? {} : { scoreMin: min }),
    ...(below === undefined ? {} : { scoreBelow: below }),
    ...(leaf.latest === null ? {} : { using: leaf.latest ? 'latest' : 'best' }),
  }
}

export const isScore = (asked: Asked) => asked.startsWith('score-')

function partNode(part: Part): Node | undefined {
  const node = part.kind === 'leaf' ? leafNode(part) : severalNode(part)
  return node && part.not ? { not: node } : node
}

function severalNode({ join, least, parts }: Several): Node | undefined {
  const nodes = parts.map(partNode)
  if (nodes.length === 0 || nodes.includes(undefined)) return undefined
  const whole = nodes as Node[]
  if (join === 'some') return { atLeast: Math.min(least, whole.length), of: whole }
  return join === 'all' ? { all: whole } : { any: whole }
}

/** The stored condition that a draft is; null: none; undefined: something is not said yet. */
export function gateOf({ root, latch, whenLocked }: Draft): unknown {
  if (root.parts.length === 0) return null
  const alone = root.parts.length === 1 && root.join !== 'some' ? root.parts[0]! : null
  const node = alone ? partNode(alone) : severalNode(root)
  return node && { ...node, ...(latch === null ? {} : { latch }), ...(whenLocked === null ? {} : { whenLocked }) }
}

const leavesOf = (part: Part): Leaf[] => (part.kind === 'leaf' ? [part] : part.parts.flatMap(leavesOf))
const hasNot = (part: Part): boolean => part.not || (part.kind === 'several' && part.parts.some(hasNot))

/** What is usual for what it asks: whether it stays open, and whether students are told of it. */
export function usual({ root }: Draft): { stays: boolean; isTold: boolean } {
  const leaves = leavesOf(root)
  const picked = leaves.some((leaf) => leaf.about === 'item' && leaf.asked.startsWith(PICKED))
  const below = leaves.some((leaf) => leaf.about === 'item' && /^score-(below|between)$/.test(leaf.asked))
  const group = leaves.some((leaf) => leaf.about === 'group')
  return { stays: !picked && !hasNot(root), isTold: !picked && !below && !group && !hasNot(root) }
}

/** Points as the percentage that is stored, cut down as scores are, so that whoever has just these points is let in. */
export const percentOfPoints = (points: number, outOf: number) =>
  Math.floor((points / outOf) * 1_000_000 + 1e-6) / 10_000

/** The points that a stored percentage comes to. */
export const pointsOfPercent = (percent: number, outOf: number) => Math.round(percent * outOf) / 100
