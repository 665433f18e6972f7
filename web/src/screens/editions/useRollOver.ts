import { refDebounced } from '@vueuse/core'
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'

/** Making the next edition: what it would be on the new calendar stands there before anything is written. */
export function useRollOver(edition: number, answer: () => Schemas['EditionsAnswer'] | undefined) {
  const client = useQueryClient()
  const form = reactive<Schemas['RollOverRequest']>({ title: '', term: 0, fixedDates: 'week', sections: [] })
  const shown = ref<Schemas['RollOverAnswer'] | null>(null)
  const problem = ref<Problem | null>(null)
  const busy = ref(false)
  let key: string | null = null

  watch(
    answer,
    (now) => {
      if (!now || form.term) return
      const term = now.terms[0]
      if (!term) return
      form.term = term.id
      form.title = `edition ${term.dates.slice(-4)}`
      const first = now.sections[0]
      if (first) form.sections = [{ name: '', letter: first.letter, succeeds: first.id }]
    },
    { immediate: true },
  )

  const isWhole = computed(
    () => form.term > 0 && form.title.trim() !== '' && form.sections.every((section) => section.name.trim() !== ''),
  )
  const asked = refDebounced(
    computed(() => (isWhole.value ? JSON.stringify(form) : null)),
    300,
  )
  watch(asked, async (written) => {
    shown.value = null
    problem.value = null
    if (!written) return
    try {
      const preview = await ask(
        api.POST('/api/editions/{edition}/roll-over', {
          params: { path: { edition }, query: { preview: true } },
          body: JSON.parse(written) as Schemas['RollOverRequest'],
        }),
      )
      if (written === asked.value) shown.value = preview
    } catch (error) {
      problem.value = problemOf(error)
    }
  })

  /** The new edition; null: it was not made. */
  async function rollOver(): Promise<number | null> {
    busy.value = true
    problem.value = null
    key ??= crypto.randomUUID()
    try {
      const done = await ask(
        api.POST('/api/editions/{edition}/roll-over', {
          params: { path: { edition }, header: once(key) },
          body: form,
        }),
      )
      key = null
      await client.invalidateQueries()
      return done.edition
    } catch (error) {
      problem.value = problemOf(error)
      if (problem.value.status > 0 && problem.value.status < 500) key = null
      return null
    } finally {
      busy.value = false
    }
  }

  /** The edition that is current again; null: it was not taken back. */
  async function takeBack(which: number): Promise<number | null> {
    busy.value = true
    problem.value = null
    try {
      const done = await ask(
        api.POST('/api/editions/{edition}/take-back-roll-over', {
          params: { path: { edition: which }, header: once() },
          body: {},
        }),
      )
      client.removeQueries({ queryKey: keys.edition(which) })
      await client.invalidateQueries()
      return done.edition
    } catch (error) {
      problem.value = problemOf(error)
      return null
    } finally {
      busy.value = false
    }
  }

  return { form, shown, problem, busy, isWhole, rollOver, takeBack }
}
