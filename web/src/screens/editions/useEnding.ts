import { useQueryClient } from '@tanstack/vue-query'
import { computed, shallowRef } from 'vue'
import { api, ask, once, problemOf } from '../../foundation/api/client'
import { askBefore } from '../../foundation/commands/asking'

/** Ending an edition, now or on a day, looked at before it is done; and taking that back. */
export function useEnding() {
  const client = useQueryClient()
  const refused = shallowRef<unknown>(null)
  const busy = shallowRef(false)

  async function end(edition: number, on: string | null): Promise<void> {
    const send = (preview: boolean) =>
      ask(
        api.POST('/api/editions/{edition}/end-edition', {
          params: {
            path: { edition },
            query: preview ? { preview } : {},
            header: preview ? {} : once(),
          },
          body: { on },
        }),
      )
    await tried(async () => {
      const { act, sentence } = await send(true)
      if (await askBefore({ act, reach: { sentence, effect: 'takes' } })) await send(false)
    })
  }

  const resume = (edition: number) =>
    tried(async () => {
      await ask(
        api.POST('/api/editions/{edition}/resume-edition', {
          params: { path: { edition }, header: once() },
          body: {},
        }),
      )
    })

  async function tried(what: () => Promise<void>): Promise<void> {
    busy.value = true
    refused.value = null
    try {
      await what()
    } catch (error) {
      refused.value = error
    } finally {
      busy.value = false
      await client.invalidateQueries()
    }
  }

  return { end, resume, busy, problem: computed(() => (refused.value ? problemOf(refused.value) : null)) }
}
