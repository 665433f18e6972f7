import { refDebounced } from '@vueuse/core'
import { type Ref, ref, toRaw, watch } from 'vue'
import { problemOf } from './api/client'
import { NoLongerAsked } from './useCommand'

type Preview<B> = (request: B, signal: AbortSignal) => Promise<{ reach: { sentence: string } }>

/**
 * What a change would do, asked once the request settles; empty while there is nothing to ask. A preview holds the course
 * for a moment, so one that nobody is waiting for any more is cancelled.
 */
export function useReach<B>(request: Ref<B | null>, preview: Preview<B>) {
  const sentence = ref('')
  const settled = refDebounced(request, 250)
  // What was said of another request is not said of this one.
  watch(request, (now, before) => {
    if (toRaw(now) !== toRaw(before)) sentence.value = ''
  })
  watch(
    settled,
    async (asked, _, onCleanup) => {
      sentence.value = ''
      if (!asked) return
      const giveUp = new AbortController()
      onCleanup(() => giveUp.abort())
      const stillAsked = () => toRaw(asked) === toRaw(request.value)
      try {
        const answer = await preview(asked, giveUp.signal)
        if (stillAsked()) sentence.value = answer.reach.sentence
      } catch (error) {
        if (stillAsked() && !(error instanceof NoLongerAsked)) sentence.value = problemOf(error).title
      }
    },
    { immediate: true },
  )
  return sentence
}
