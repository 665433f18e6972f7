import { refDebounced } from '@vueuse/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'

/** Writing feedback on a piece and giving it back: what opens by it stands there before. */
export function useGiveBack(
  edition: number,
  section: number,
  piece: () => Schemas['WorkPiece'],
  /** What is still to be chosen before it can go back, in words; empty: nothing. */
  lacking: (mark: Schemas['MarkGiven'] | null) => string,
) {
  const client = useQueryClient()
  const text = ref('')
  const again = ref(false)
  /** Null: in words only, or no mark yet. */
  const mark = ref<Schemas['MarkGiven'] | null>(null)
  /** Of what several handed in together: only to this one. */
  const alone = ref(false)
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  const sentence = ref('')
  const request = computed(() => ({
    work: piece().work ?? 0,
    n: piece().n,
    text: text.value,
    again: again.value,
    alone: alone.value,
    mark: mark.value,
  }))
  const settled = refDebounced(
    computed(() => [piece().work, again.value, alone.value, mark.value] as const),
    100,
  )

  watch(
    settled,
    async () => {
      sentence.value = ''
      if (!piece().work || piece().back) return
      sentence.value = again.value ? '' : lacking(mark.value)
      if (sentence.value) return
      try {
        const shown = await ask(
          api.POST('/api/sections/{section}/give-back', {
            params: { path: { section }, query: { preview: true } },
            body: request.value,
          }),
        )
        sentence.value = shown.sentence
      } catch (error) {
        sentence.value = problemOf(error).title
      }
    },
    { immediate: true },
  )

  let key: string | null = null
  async function give(): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    problem.value = null
    key ??= crypto.randomUUID()
    try {
      await ask(
        api.POST('/api/sections/{section}/give-back', {
          params: { path: { section }, header: once(key) },
          body: request.value,
        }),
      )
      key = null
      text.value = ''
      await client.invalidateQueries({ queryKey: keys.edition(edition) })
      return true
    } catch (error) {
      problem.value = problemOf(error)
      // Sent again after a lost connection it is done once; refused, it is another request.
      if (problem.value.status > 0 && problem.value.status < 500) key = null
      return false
    } finally {
      busy.value = false
    }
  }

  return { text, mark, again, alone, busy, problem, sentence, give }
}
