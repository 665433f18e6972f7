import { type Ref } from 'vue'
import { useAnswer } from '../../foundation/useAnswer'
import { useLive } from '../../foundation/useLive'
import { questions } from '../../foundation/api/questions'

/** A term as the office sees it, read anew whenever a colleague changes it. */
export function useCalendar(term: Ref<number>) {
  const calendar = useAnswer(() => questions.calendar(term.value))
  const { away } = useLive('term', term, calendar.isFetched)
  return { calendar: calendar.data, problem: calendar.problem, again: calendar.refetch, away }
}
