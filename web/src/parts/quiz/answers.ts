import type { Schemas } from '../../foundation/api/client'

/** An answer in the form that its kind of question takes; null: cleared. */
export type QuizAnswer = string | boolean | (string | null)[] | Record<string, string> | null

/** How many questions have no answer yet. */
export function unanswered(questions: readonly Schemas['PutQuestion'][], given: Record<string, QuizAnswer>): number {
  return questions.filter(({ id }) => isBlank(given[id] ?? null)).length
}

function isBlank(answer: QuizAnswer): boolean {
  if (answer === null) return true
  if (typeof answer === 'string') return answer.trim() === ''
  if (Array.isArray(answer)) return answer.every((part) => part === null || part.trim() === '')
  return typeof answer === 'object' && Object.keys(answer).length === 0
}
