import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { problemOf } from './api/client'
import type { Question } from './api/questions'

interface AnswerOptions {
  refetchInterval?: number
  /** What is shown stays until it is read from another viewpoint. */
  stays?: boolean
  /** While this is false nothing is asked. */
  enabled?: Ref<boolean> | boolean
}

/** The answer to one of `questions`, read anew when the question changes; with what is wrong where it cannot be had. */
export function useAnswer<T>(asked: () => Question<T>, { stays, ...options }: AnswerOptions = {}) {
  const query = useQuery(
    computed(() => {
      const { queryKey, queryFn } = asked()
      // Of the same edition or section only: the last part of a key is the viewpoint.
      const kept = (before: T | undefined, of?: { queryKey: readonly unknown[] }) =>
        stays && of && JSON.stringify(of.queryKey.slice(0, -1)) === JSON.stringify(queryKey.slice(0, -1))
          ? before
          : undefined
      return { queryKey, queryFn, shallow: true, placeholderData: kept as never, ...options }
    }),
  )
  return {
    data: query.data as Ref<T | undefined>,
    /** Told from the second try that failed; it goes on being tried for some seconds. */
    problem: computed(() => {
      const error = query.error.value ?? (query.failureCount.value > 1 ? query.failureReason.value : null)
      return error ? problemOf(error) : null
    }),
    isFetched: query.isSuccess,
    refetch: query.refetch,
  }
}
