import { type Ref, computed } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useLive } from '../../foundation/useLive'

/** A term as the office sees it, read anew whenever a colleague changes it. */
export function useCalendar(term: Ref<number>) {
  const calendar = useAnswer(
    computed(() => keys.calendar(term.value)),
    () => api.GET('/api/terms/{term}/calendar', { params: { path: { term: term.value } } }),
  )
  const { away } = useLive('term', term, calendar.isFetched)
  return { calendar: calendar.data, problem: calendar.problem, away }
}
