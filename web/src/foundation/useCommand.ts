import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { type Schemas, ask, problemOf } from './api/client'
import { keys } from './keys'

type Answer = { data?: Schemas['CommandAnswer']; error?: unknown; response: Response }

/** How a command is sent: looked at beforehand, or done under a key of its own. */
export type Send<TRequest> = (
  request: TRequest,
  how: { params: { query: { preview?: boolean }; header: { 'Idempotency-Key'?: string } } },
) => Promise<Answer>

/**
 * A command on an edition. Until it is answered it keeps its key, so that pressing again after a lost connection does
 * it once. What it changes is read anew.
 */
export function useCommand<TRequest>(edition: Ref<number>, send: Send<TRequest>) {
  const client = useQueryClient()
  let pending: { asked: string; key: string } | null = null
  const mutation = useMutation({
    mutationFn: async (request: TRequest) => {
      const asked = JSON.stringify(request)
      if (pending?.asked !== asked) pending = { asked, key: crypto.randomUUID() }
      try {
        const answer = await ask(send(request, { params: { query: {}, header: { 'Idempotency-Key': pending.key } } }))
        pending = null
        return answer
      } catch (error) {
        if (problemOf(error).status > 0) pending = null
        throw error
      }
    },
    onSettled: () => client.invalidateQueries({ queryKey: keys.edition(edition.value) }),
  })
  return {
    run: mutation.mutateAsync,
    reset: mutation.reset,
    busy: mutation.isPending,
    problem: computed(() => (mutation.error.value ? problemOf(mutation.error.value) : null)),
    preview: (request: TRequest) => ask(send(request, { params: { query: { preview: true }, header: {} } })),
  }
}
