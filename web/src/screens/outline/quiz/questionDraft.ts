import { WRITING } from '../../../foundation/session'
import type { WrittenRules } from './rows'

/** Questions being written, as this device keeps them until they are saved. */
export interface QuestionDraft {
  /** The questions as they stood when these were begun. */
  from: string
  text: string
  rules: WrittenRules
  inRows: boolean
}

const placeOf = (edition: number, item: number) => `${WRITING}questions-${edition}-${item}`

export const keepDraft = (edition: number, item: number, draft: QuestionDraft): void =>
  localStorage.setItem(placeOf(edition, item), JSON.stringify(draft))

export const dropDraft = (edition: number, item: number): void => localStorage.removeItem(placeOf(edition, item))

/** What was begun here and not saved; what cannot be read is dropped. */
export function keptDraft(edition: number, item: number): QuestionDraft | null {
  try {
    const kept = JSON.parse(localStorage.getItem(placeOf(edition, item)) ?? 'null') as QuestionDraft | null
    if (typeof kept?.text === 'string' && typeof kept.rules === 'object') return kept
  } catch {
    // Dropped below.
  }
  dropDraft(edition, item)
  return null
}
