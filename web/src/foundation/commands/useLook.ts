import { refDebounced } from '@vueuse/core'
import { type Ref, ref, shallowRef, toRaw, watch } from 'vue'
import { type Problem, problemOf } from '../api/client'
import { NoLongerAsked } from './useCommand'

const PAUSE = 250

/**
 * What something would do, asked once the request settles. A look that nobody is waiting for any more is cancelled, since it
 * holds what it looks at for a moment.
 * @param request Null: there is nothing to ask.
 * @param keeps What was answered stays until the next answer; otherwise it goes as soon as something else is asked.
 */
export function useLook<B, A>(
  request: Ref<B | null>,
  look: (request: B, signal: AbortSignal) => Promise<A>,
  { keeps = false } = {},
) {
  const answer = shallowRef<A | null>(null)
  const problem = shallowRef<Problem | null>(null)
  const busy = ref(false)
  const settled = refDebounced(request, PAUSE)
  const forget = () => {
    problem.value = null
    if (!keeps || request.value === null) answer.value = null
  }
  // What was said of another request is not said of this one.
  watch(request, (now, before) => {
    if (toRaw(now) !== toRaw(before)) forget()
  })
  watch(
    settled,
    async (asked, _, onCleanup) => {
      forget()
      busy.value = asked !== null
      if (asked === null) return
      const giveUp = new AbortController()
      onCleanup(() => giveUp.abort())
      const stillAsked = () => !giveUp.signal.aborted && toRaw(asked) === toRaw(request.value)
      try {
        const answered = await look(asked, giveUp.signal)
        if (stillAsked()) answer.value = answered
      } catch (error) {
        if (stillAsked() && !(error instanceof NoLongerAsked)) problem.value = problemOf(error)
      }
      if (stillAsked()) busy.value = false
    },
    { immediate: true },
  )
  return { answer, problem, busy }
}
