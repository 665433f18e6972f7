/** A condition as one sentence of parts: each what must have been done with which item, or picked in it. */
export interface Part {
  item: string
  is: Deed | `picked:${string}`
}
export type Deed = 'opened' | 'submitted' | 'returned'

export interface Condition {
  join: 'all' | 'any'
  parts: Part[]
}

interface Node {
  all?: Node[]
  any?: Node[]
  item?: string
  is?: string
  choice?: string
  picked?: string
}

export const deedWords: Record<Deed, string> = {
  returned: 'feedback on it is given back',
  submitted: 'it is handed in',
  opened: 'it is opened',
}

const PICKED = 'picked:'
/** That an option of a choice is picked. */
export const pickedIs = (option: string): Part['is'] => `${PICKED}${option}` as Part['is']

/** What can be asked of an item: of a choice that one of its options is picked. */
export const deedsFor = (
  options: readonly { option: string; title: string }[],
): { value: Part['is']; title: string }[] =>
  options.length
    ? options.map(({ option, title }) => ({ value: pickedIs(option), title: `“${title}” is picked` }))
    : Object.entries(deedWords).map(([value, title]) => ({ value: value as Deed, title }))

function partOf(node: Node): Part | null {
  if (Object.keys(node).length !== 2) return null
  if (node.choice && node.picked) return { item: node.choice, is: pickedIs(node.picked) }
  return node.item && (node.is === 'opened' || node.is === 'submitted' || node.is === 'returned')
    ? { item: node.item, is: node.is }
    : null
}

const nodeOf = ({ item, is }: Part): Node =>
  is.startsWith(PICKED) ? { choice: item, picked: is.slice(PICKED.length) } : { item, is }

/** The sentence that a stored condition is; null: it says more than this sentence can. */
export function conditionOf(gate: unknown): Condition | null {
  if (!gate) return { join: 'all', parts: [] }
  const node = gate as Node
  const alone = partOf(node)
  if (alone) return { join: 'all', parts: [alone] }
  const join = node.all ? 'all' : 'any'
  const parts = (node[join] ?? []).map(partOf)
  return Object.keys(node).length === 1 && parts.length > 0 && parts.every((part) => part !== null)
    ? { join, parts: parts as Part[] }
    : null
}

/** The stored condition that a sentence is; null: none. */
export function gateOf(condition: Condition): unknown {
  const parts = condition.parts.filter((part) => part.item).map(nodeOf)
  if (parts.length === 0) return null
  return parts.length === 1 ? parts[0] : { [condition.join]: parts }
}
