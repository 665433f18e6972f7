/** A condition in the plan file's form. */
export type Gate = { [key: string]: unknown }

/** One score that a condition asks for. */
export interface AskedScore {
  /** The steps that lead to it in the condition. */
  path: readonly (string | number)[]
  /** The item it is in. */
  item: string
  /** In per cent; null: not asked for. */
  min: number | null
  below: number | null
  latest: boolean
}

/** Every score that a condition asks for, as they stand in it. */
export function scoresIn(gate: unknown, path: (string | number)[] = []): AskedScore[] {
  if (Array.isArray(gate)) return gate.flatMap((one, n) => scoresIn(one, [...path, n]))
  if (gate === null || typeof gate !== 'object') return []
  const { item, scoreMin, scoreBelow, using } = gate as Gate
  if (typeof item === 'string' && (typeof scoreMin === 'number' || typeof scoreBelow === 'number'))
    return [
      {
        path,
        item,
        min: typeof scoreMin === 'number' ? scoreMin : null,
        below: typeof scoreBelow === 'number' ? scoreBelow : null,
        latest: using === 'latest',
      },
    ]
  return ['all', 'any', 'of', 'not'].flatMap((key) => scoresIn((gate as Gate)[key], [...path, key]))
}

/** The same condition with another threshold at one of its scores. */
export function withThreshold(
  gate: unknown,
  path: readonly (string | number)[],
  end: 'min' | 'below',
  to: number,
): Gate {
  const copy = structuredClone(gate) as Gate
  const leaf = path.reduce<Gate>((node, key) => node[key] as Gate, copy)
  leaf[end === 'min' ? 'scoreMin' : 'scoreBelow'] = to
  return copy
}

/** Whether a condition, once met, stays met; as is usual for what it asks where nothing is said. */
export function isLatched(gate: unknown): boolean {
  const said = (gate as Gate).latch
  if (typeof said === 'boolean') return said
  const asks = (node: unknown): boolean =>
    Array.isArray(node)
      ? node.some(asks)
      : node !== null &&
        typeof node === 'object' &&
        ('choice' in node || 'not' in node || ['all', 'any', 'of'].some((key) => asks((node as Gate)[key])))
  return !asks(gate)
}

interface Reached {
  name: string
  score: number
}

/** Who lies between two thresholds, and whether they are let in or shut out by moving it from one to the other. */
export function changesSide<S extends Reached>(
  scored: readonly S[],
  end: 'min' | 'below',
  from: number,
  to: number,
): { lets: S[]; shuts: S[] } {
  const between = scored.filter(({ score }) => score >= Math.min(from, to) && score < Math.max(from, to))
  return (end === 'min') === to < from ? { lets: between, shuts: [] } : { lets: [], shuts: between }
}
