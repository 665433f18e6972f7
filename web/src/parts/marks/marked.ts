import type { Schemas } from '../../foundation/api/client'

/** How an item is marked, as the team reads it. */
export function markedSentence(marked: Schemas['MarkedForm'] | null): string {
  if (!marked) return 'Students get feedback on it in words only.'
  if (marked.as === 'points') return `It is marked out of ${marked.outOf} ${marked.outOf === 1 ? 'point' : 'points'}.`
  const weight = marked.outOf === 100 ? '' : `, and counts as ${marked.outOf}`
  if (marked.as === 'percent') return `It is marked in per cent${weight}.`
  const levels = marked.levels.map(({ name, percent }) => (percent == null ? name : `${name} (${percent} %)`))
  return `It is marked as ${levels.slice(0, -1).join(', ')} or ${levels[levels.length - 1]}${weight}.`
}

/** Scales to begin with; their words can be changed. */
export const usualScales: readonly (readonly string[])[] = [
  ['not yet', 'nearly there', 'there'],
  ['needs more work', 'fair', 'good', 'very good'],
  ['not shown', 'shown once', 'shown reliably'],
]
