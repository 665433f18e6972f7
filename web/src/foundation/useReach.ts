import { refDebounced } from '@vueuse/core'
import { type Ref, ref, toRaw, watch } from 'vue'
import { problemOf } from './api/client'

type Preview<B> = (request: B) => Promise<{ reach: { sentence: string } }>

/** What a change would do, asked whenever it stands still; empty where there is nothing to ask. */
export function useReach<B>(request: Ref<B | null>, preview: Preview<B>) {
  const sentence = ref('')
  const settled = refDebounced(request, 250)
  watch(
    settled,
    async (asked) => {
      sentence.value = ''
      if (!asked) return
      const stillAsked = () => toRaw(asked) === toRaw(request.value)
      try {
        const answer = await preview(asked)
        if (stillAsked()) sentence.value = answer.reach.sentence
      } catch (error) {
        if (stillAsked()) sentence.value = problemOf(error).title
      }
    },
    { immediate: true },
  )
  return sentence
}
