import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { problemOf } from '../api/client'

/**
 * Something sent to the server that has no reach to be looked at beforehand: signing in, an account, a new course. Until it
 * is answered it keeps its key, so that pressing again after a lost connection does it once.
 * @param send How it is sent under a key.
 * @param changes The keys of the answers that are then read anew.
 */
export function useSend<TRequest, TAnswer>(
  send: (request: TRequest, key: string) => Promise<TAnswer>,
  changes: readonly (readonly unknown[])[] = [],
) {
  const client = useQueryClient()
  let pending: { asked: string; key: string } | null = null
  const mutation = useMutation({
    mutationFn: async (request: TRequest) => {
      const asked = JSON.stringify(request)
      if (pending?.asked !== asked) pending = { asked, key: crypto.randomUUID() }
      try {
        const answer = await send(request, pending.key)
        pending = null
        return answer
      } catch (error) {
        if (problemOf(error).status > 0) pending = null
        throw error
      }
    },
    onSuccess: () => Promise.all(changes.map((queryKey) => client.invalidateQueries({ queryKey }))),
  })
  const problem = computed(() => (mutation.error.value ? problemOf(mutation.error.value) : null))
  return {
    /** Its answer; null if it was refused, or something is under way already. What is wrong is then told. */
    run: (request: TRequest): Promise<TAnswer | null> =>
      mutation.isPending.value ? Promise.resolve(null) : mutation.mutateAsync(request).catch(() => null),
    busy: computed(() => mutation.isPending.value),
    problem,
    /** What is wrong with the whole, and not with one field. */
    general: computed(() => (problem.value?.field ? null : problem.value)),
    /** What is wrong with a field; null: nothing. */
    wrong: (field: string) => (problem.value?.field === field ? problem.value.title : null),
    forget: () => mutation.reset(),
  }
}
