import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { ask, problemOf } from './api/client'

/** An answer that is kept under its key and read anew when that changes; with what is wrong where it cannot be had. */
export function useAnswer<T>(
  key: Ref<readonly unknown[]>,
  read: () => Promise<{ data?: T; error?: unknown; response: Response }>,
  options: { refetchInterval?: number } = {},
) {
  const query = useQuery({ queryKey: key, queryFn: () => ask(read()), shallow: true, ...options })
  return {
    data: query.data as Ref<T | undefined>,
    problem: computed(() => (query.error.value ? problemOf(query.error.value) : null)),
    isFetched: query.isSuccess,
    refetch: query.refetch,
  }
}
