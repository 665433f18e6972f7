import { type Ref, computed } from 'vue'
import { useLook } from './useLook'

type Preview<B> = (request: B, signal: AbortSignal) => Promise<{ reach: { sentence: string } }>

/** What a change would do, in a sentence, or what is wrong with it; empty while there is nothing to ask. */
export function useReach<B>(request: Ref<B | null>, preview: Preview<B>) {
  const { answer, problem } = useLook(request, preview)
  return computed(() => answer.value?.reach.sentence ?? problem.value?.title ?? '')
}
