import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { type Schemas, ask, problemOf } from './api/client'

type Answer = { data?: Schemas['CommandAnswer']; error?: unknown; response: Response }

/** How a command is sent: looked at beforehand, or done under a key of its own. */
export type Send<TRequest> = (
  request: TRequest,
  how: { params: { query: { preview?: boolean }; header: { 'Idempotency-Key'?: string } }; signal?: AbortSignal },
) => Promise<Answer>

/**
 * A command. Until it is answered it keeps its key, so that pressing again after a lost connection does it once. What
 * it changes is read anew.
 * @param changes Under which key that is kept.
 */
export function useCommand<TRequest>(changes: Ref<readonly unknown[]>, send: Send<TRequest>) {
  const client = useQueryClient()
  let pending: { asked: string; key: string } | null = null
  let looking = new AbortController()
  const mutation = useMutation({
    mutationFn: async (request: TRequest) => {
      const asked = JSON.stringify(request)
      if (pending?.asked !== asked) pending = { asked, key: crypto.randomUUID() }
      // What is still being looked at beforehand would be told that it comes too late.
      looking.abort()
      looking = new AbortController()
      try {
        const answer = await ask(send(request, { params: { query: {}, header: { 'Idempotency-Key': pending.key } } }))
        pending = null
        return answer
      } catch (error) {
        if (problemOf(error).status > 0) pending = null
        throw error
      }
    },
    onSettled: () => client.invalidateQueries({ queryKey: changes.value }),
  })
  /** What it would do; never answered once it is being done. */
  async function preview(request: TRequest) {
    const { signal } = looking
    const never = () => new Promise<never>(() => undefined)
    if (mutation.isPending.value) return never()
    try {
      return await ask(send(request, { params: { query: { preview: true }, header: {} }, signal }))
    } catch (error) {
      return signal.aborted ? never() : Promise.reject(error as Error)
    }
  }
  return {
    run: mutation.mutateAsync,
    reset: mutation.reset,
    busy: mutation.isPending,
    problem: computed(() => (mutation.error.value ? problemOf(mutation.error.value) : null)),
    preview,
  }
}
