/** A condition as one sentence of parts: each what must have been done with which item. */
export interface Part {
  item: string
  is: 'opened' | 'submitted' | 'returned'
}

export interface Condition {
  join: 'all' | 'any'
  parts: Part[]
}

interface Node {
  all?: Node[]
  any?: Node[]
  item?: string
  is?: string
}

export const deedWords: Record<Part['is'], string> = {
  returned: 'feedback on it is given back',
  submitted: 'it is handed in',
  opened: 'it is opened',
}

const partOf = (node: Node): Part | null =>
  node.item &&
  (node.is === 'opened' || node.is === 'submitted' || node.is === 'returned') &&
  Object.keys(node).length === 2
    ? { item: node.item, is: node.is }
    : null

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
  const parts = condition.parts.filter((part) => part.item)
  if (parts.length === 0) return null
  return parts.length === 1 ? parts[0] : { [condition.join]: parts }
}
