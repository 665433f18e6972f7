import { useQueryClient } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { WRITING } from '../../foundation/session'
import { keyOf, placePasted, toGive } from './scoreWriting'

const PAUSE = 250

/** Scores that are written into the table of a section: kept together until they are given, all at once. */
export function useScoreWriting(
  edition: () => number,
  /** Undefined: nothing is read yet. */
  section: () => Schemas['ScoreSection'] | undefined,
  items: () => Schemas['ScoreItem'][],
) {
  const client = useQueryClient()
  const written = shallowRef<ReadonlyMap<string, string>>(new Map())
  const unplaced = ref<string[]>([])
  // What is written stays on this device until it is given or let go: leaving the screen loses nothing.
  const place = () => (section() ? `${WRITING}scores-${section()!.section}` : null)
  watch(
    place,
    (now) => {
      try {
        written.value = new Map(JSON.parse((now && localStorage.getItem(now)) ?? '[]') as [string, string][])
      } catch {
        written.value = new Map()
      }
    },
    { immediate: true },
  )
  function keep(now: ReadonlyMap<string, string>): void {
    written.value = now
    const where = place()
    if (!where) return
    if (now.size > 0) localStorage.setItem(where, JSON.stringify([...now]))
    else localStorage.removeItem(where)
  }
  /** What is open only by a score that is being replaced closes. */
  const close = ref(false)
  const problem = ref<Problem | null>(null)
  /** What giving them would do; and what was just done. */
  const sentence = ref('')
  const done = ref('')
  const stays = ref(false)
  const busy = ref(false)
  const given = computed(() => toGive(written.value, section()?.students ?? [], items()))
  const request = computed(() => ({ scores: given.value.scores, close: close.value }))
  const settled = refDebounced(
    computed(() => JSON.stringify(request.value)),
    PAUSE,
  )
  let key: string | null = null

  const post = (preview: boolean) =>
    ask(
      api.POST('/api/sections/{section}/give-scores', {
        params: {
          path: { section: section()!.section },
          query: { preview },
          header: preview ? {} : once((key ??= crypto.randomUUID())),
        },
        body: request.value,
      }),
    )

  watch(settled, async (asked) => {
    sentence.value = ''
    problem.value = null
    if (given.value.scores.length === 0) {
      stays.value = false
      return
    }
    try {
      const shown = await post(true)
      if (asked !== settled.value) return
      sentence.value = shown.sentence
      stays.value = shown.stays
    } catch (error) {
      problem.value = problemOf(error)
    }
  })

  function write(student: number, item: number, text: string): void {
    done.value = ''
    keep(new Map(written.value).set(keyOf(student, item), text))
  }

  function paste(text: string, line: number, columns: readonly number[]): void {
    done.value = ''
    const pasted = placePasted(text, line, section()?.students ?? [], columns, items())
    keep(new Map([...written.value, ...pasted.written]))
    unplaced.value = pasted.unplaced
  }

  function leave(): void {
    keep(new Map())
    unplaced.value = []
    sentence.value = ''
    problem.value = null
    close.value = false
  }

  async function run(what: () => Promise<string>): Promise<void> {
    if (busy.value) return
    busy.value = true
    problem.value = null
    try {
      const said = await what()
      key = null
      leave()
      await client.invalidateQueries({ queryKey: keys.edition(edition()) })
      done.value = `Done. ${said}`
    } catch (error) {
      problem.value = problemOf(error)
      // Sent again after a lost connection it is done once; refused, it is another request.
      if (problem.value.status > 0 && problem.value.status < 500) key = null
    } finally {
      busy.value = false
    }
  }

  const give = () => run(async () => (await post(false)).sentence)
  const postBack = async (last: string, preview: boolean) =>
    (
      await ask(
        api.POST('/api/sections/{section}/take-back-scores', {
          params: {
            path: { section: section()!.section },
            query: { preview },
            header: preview ? {} : once((key ??= crypto.randomUUID())),
          },
          body: { key: last },
        }),
      )
    ).sentence
  /** What taking back what was last given would do. */
  const lookBack = (last: string) =>
    postBack(last, true).catch((error: unknown) => {
      problem.value = problemOf(error)
      return ''
    })
  const takeBack = (last: string) => run(() => postBack(last, false))

  return {
    written,
    unplaced,
    close,
    problem,
    sentence,
    done,
    stays,
    busy,
    given,
    write,
    paste,
    leave,
    give,
    lookBack,
    takeBack,
  }
}
