import { refDebounced } from '@vueuse/core'
import { type Ref, computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import type { Question } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

const SHORTEST = 3
const PAUSE = 200

/**
 * What the server finds by the words of texts and files, a moment after they are typed.
 * @param written What is typed; fewer than three characters are not sought.
 */
export function useSought(written: Ref<string>, ask: (words: string) => Question<Schemas['SearchAnswer']>) {
  const settled = refDebounced(written, PAUSE)
  const words = computed(() => settled.value.trim())
  const wanted = computed(() => words.value.length >= SHORTEST)
  const answer = useAnswer(() => ask(words.value), { enabled: wanted })
  return {
    hits: computed(() => (wanted.value ? (answer.data.value?.hits ?? []) : [])),
    /** Something is typed whose answer has not come. */
    busy: computed(
      () => written.value.trim().length >= SHORTEST && (words.value !== written.value.trim() || !answer.data.value),
    ),
    problem: answer.problem,
    isLongEnough: computed(() => written.value.trim().length >= SHORTEST),
  }
}
