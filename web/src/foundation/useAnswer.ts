import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { ask, problemOf } from './api/client'

interface AnswerOptions {
  refetchInterval?: number
  /** What is shown stays until it is read from another viewpoint. */
  stays?: boolean
  /** While this is false nothing is asked. */
  enabled?: Ref<boolean>
}

/** An answer that is kept under its key and read anew when that changes; with what is wrong where it cannot be had. */
export function useAnswer<T>(
  key: Ref<readonly unknown[]>,
  read: () => Promise<{ data?: T; error?: unknown; response: Response }>,
  { stays, ...options }: AnswerOptions = {},
) {
  // Of the same edition or section only: the last part of a key is the viewpoint.
  const kept = (before: T | undefined, of?: { queryKey: readonly unknown[] }) =>
    stays && of && JSON.stringify(of.queryKey.slice(0, -1)) === JSON.stringify(key.value.slice(0, -1))
      ? before
      : undefined
  const query = useQuery({
    queryKey: key,
    queryFn: () => ask(read()),
    shallow: true,
    placeholderData: kept as never,
    ...options,
  })
  return {
    data: query.data as Ref<T | undefined>,
    problem: computed(() => (query.error.value ? problemOf(query.error.value) : null)),
    isFetched: query.isSuccess,
    refetch: query.refetch,
  }
}
