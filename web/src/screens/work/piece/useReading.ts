import { useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'

/** How often one says again that one is still writing. */
const AGAIN = 5 * 60_000

/** Tells colleagues that one reads a piece as soon as one writes on it, and oneself who else does. */
export function useReading(section: number, piece: () => Schemas['WorkPiece'], isWriting: () => boolean) {
  const told = ref<Schemas['PieceReader'] | null>(null)
  /** One reads it although a colleague does. */
  const isOver = ref(false)
  const reader = computed(() => (isOver.value ? null : (told.value ?? piece().reader ?? null)))

  async function say(how: { over?: boolean; done?: boolean }): Promise<void> {
    try {
      const { item, student } = piece()
      const answer = await ask(
        api.POST('/api/sections/{section}/take-to-read', {
          params: { path: { section }, header: once(crypto.randomUUID()) },
          body: { item, student, over: how.over ?? false, done: how.done ?? false },
        }),
      )
      told.value = answer.reader ?? null
    } catch {
      // It is a courtesy: where it cannot be told, one reads all the same.
    }
  }
  watch(isWriting, (writes) => writes && void say({}), { immediate: true })
  useIntervalFn(() => isWriting() && void say({ over: isOver.value }), AGAIN)
  onScopeDispose(() => !isWriting() && void say({ done: true }))

  async function takeOver(): Promise<void> {
    isOver.value = true
    await say({ over: true })
  }
  return { reader, takeOver }
}
