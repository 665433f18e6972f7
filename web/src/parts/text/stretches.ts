import { diffWordsWithSpace } from 'diff'

/** A stretch of text that stayed, came or went from one version to the next. */
export interface Stretch {
  text: string
  how: 'same' | 'added' | 'removed'
}

// Two texts that have nothing in common are shown one after the other.
const LONGEST_LOOK = 400

/** A text beside the one before it, word by word. */
export function stretchesOf(before: string, now: string): Stretch[] {
  const found = diffWordsWithSpace(before, now, { timeout: LONGEST_LOOK })
  if (!found)
    return [
      { text: before, how: 'removed' as const },
      { text: now, how: 'added' as const },
    ].filter((one) => one.text !== '')
  return found.map(({ value, added, removed }) => ({
    text: value,
    how: added ? 'added' : removed ? 'removed' : 'same',
  }))
}
