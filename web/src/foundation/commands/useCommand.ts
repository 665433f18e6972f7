import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { type Ref, computed, ref, shallowRef } from 'vue'
import { type Schemas, ask, problemOf } from '../api/client'
import { LeftAsItIs, askBefore } from './asking'

/** The preview was cancelled: its request has changed, or is being carried out. */
export class NoLongerAsked extends Error {}

type Answer = { data?: Schemas['CommandAnswer']; error?: unknown; response: Response }

/** How a command is sent: looked at beforehand, or done under a key of its own. */
export type Send<TRequest> = (
  request: TRequest,
  how: {
    params: { query: { preview?: boolean; names?: boolean }; header: { 'Idempotency-Key'?: string } }
    signal?: AbortSignal
  },
) => Promise<Answer>

/**
 * A command. It is always looked at before it is done, in the same form. What changes nothing for students is done at
 * once; what takes something from them is asked about with its reach; anything else is asked about unless its reach
 * stood on the screen already. Until it is answered it keeps its key, so that pressing again after a lost connection
 * does it once. What it changes is read anew.
 * @param changes Under which key that is kept.
 */
export function useCommand<TRequest>(changes: Ref<readonly unknown[]>, send: Send<TRequest>) {
  const client = useQueryClient()
  let pending: { asked: string; key: string } | null = null
  let shown: { asked: string; answer: Schemas['CommandAnswer'] } | null = null
  let looking = new AbortController()
  const waiting = ref(false)
  const refused = shallowRef<unknown>(null)
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
      } finally {
        shown = null
      }
    },
    onSettled: () => client.invalidateQueries({ queryKey: changes.value }),
  })

  const look = (request: TRequest, names = false, signal?: AbortSignal) =>
    ask(send(request, { params: { query: { preview: true, ...(names && { names }) }, header: {} }, signal }))

  /**
   * What it would do. Throws `NoLongerAsked` once the command is sent or the caller cancels.
   * @param given Aborted by the caller when the request has changed, so that the server stops working on it too.
   */
  async function preview(request: TRequest, given?: AbortSignal) {
    const signal = given ? AbortSignal.any([looking.signal, given]) : looking.signal
    // Whoever is typing changes the request while it is under way: what was looked at is what was sent.
    const asked = JSON.stringify(request)
    if (mutation.isPending.value || signal.aborted) throw new NoLongerAsked()
    try {
      const answer = await look(JSON.parse(asked) as TRequest, false, signal)
      shown = { asked, answer }
      return answer
    } catch (error) {
      throw signal.aborted ? new NoLongerAsked() : error
    }
  }

  async function run(wanted: TRequest) {
    if (waiting.value) throw new LeftAsItIs()
    refused.value = null
    const asked = JSON.stringify(wanted)
    const request = JSON.parse(asked) as TRequest
    // A lost connection: it was said yes to already.
    if (pending?.asked !== asked) {
      waiting.value = true
      try {
        const before = shown?.asked === asked ? shown : null
        const answer = before?.answer ?? (await look(request))
        const { effect } = answer.reach
        if (
          (effect === 'takes' || (effect === 'some' && !before)) &&
          !(await askBefore(answer, () => look(request, true)))
        )
          throw new LeftAsItIs()
      } catch (error) {
        if (!(error instanceof LeftAsItIs)) refused.value = error
        throw error
      } finally {
        waiting.value = false
      }
    }
    return mutation.mutateAsync(request)
  }

  return {
    run,
    reset: () => {
      refused.value = null
      mutation.reset()
    },
    busy: computed(() => waiting.value || mutation.isPending.value),
    problem: computed(() => {
      const error = refused.value ?? mutation.error.value
      return error ? problemOf(error) : null
    }),
    preview,
  }
}
