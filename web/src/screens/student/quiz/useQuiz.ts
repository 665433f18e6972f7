import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref } from 'vue'
import { type Problem, api, ask, once, problemOf } from '../../../foundation/api/client'
import { keys } from '../../../foundation/keys'
import { WRITING } from '../../../foundation/session'
import type { QuizAnswer } from '../../../parts/quiz/answers'

interface Waiting {
  answer: QuizAnswer
  /** Sent again it is done once. */
  key: string
}

const AGAIN_AFTER = 3000
const TYPING = 400

/**
 * Taking a quiz: every answer goes to the server by itself, and stays on this device until it is there. So a lost connection, a
 * closed page or a server that starts anew costs nothing.
 */
export function useQuiz(section: number, item: number, who: number | null) {
  const client = useQueryClient()
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  const away = ref(false)
  const place = (n: number) => `${WRITING}quiz-${who}-${item}-${n}`
  /** What is not on the server yet, by question. */
  const waiting = ref<Record<string, Waiting>>({})
  const late = ref(false)
  let attempt = 0
  let sending = false
  let timer: ReturnType<typeof setTimeout> | undefined

  const unsent = computed(() => Object.keys(waiting.value).length)

  /** What this device still has of an attempt goes on its way. */
  function take(n: number): void {
    if (attempt === n) return
    attempt = n
    try {
      waiting.value = JSON.parse(localStorage.getItem(place(n)) ?? '{}') as Record<string, Waiting>
    } catch {
      waiting.value = {}
    }
    void send()
  }

  function keep(): void {
    if (unsent.value > 0) localStorage.setItem(place(attempt), JSON.stringify(waiting.value))
    else localStorage.removeItem(place(attempt))
  }

  function answer(question: string, given: QuizAnswer): void {
    waiting.value = { ...waiting.value, [question]: { answer: given, key: crypto.randomUUID() } }
    keep()
    // What is being typed is sent once there is a pause; until then this device has it.
    clearTimeout(timer)
    if (typeof given === 'string') timer = setTimeout(() => void send(), TYPING)
    else void send()
  }

  async function send(): Promise<void> {
    clearTimeout(timer)
    if (sending) return
    sending = true
    while (unsent.value > 0) {
      const [question, { answer: given, key }] = Object.entries(waiting.value)[0]!
      try {
        const kept = await ask(
          api.POST('/api/sections/{section}/answer-quiz', {
            params: { path: { section }, header: once(key) },
            body: { item, n: attempt, question, answer: given },
          }),
        )
        away.value = false
        late.value = late.value || !kept.counts
      } catch (error) {
        const told = problemOf(error)
        away.value = told.status === 0 || told.status >= 500
        if (away.value) {
          timer = setTimeout(() => void send(), AGAIN_AFTER)
          break
        }
        problem.value = told
      }
      // Answered anew meanwhile, it waits on.
      if (waiting.value[question]?.key === key)
        waiting.value = Object.fromEntries(Object.entries(waiting.value).filter(([id]) => id !== question))
      keep()
    }
    sending = false
  }

  async function act(send: () => Promise<unknown>): Promise<boolean> {
    busy.value = true
    problem.value = null
    try {
      await send()
      await client.invalidateQueries({ queryKey: keys.section(section) })
      return true
    } catch (error) {
      problem.value = problemOf(error)
      return false
    } finally {
      busy.value = false
    }
  }

  const begin = () =>
    act(() =>
      ask(
        api.POST('/api/sections/{section}/begin-quiz', {
          params: { path: { section }, header: once() },
          body: { item },
        }),
      ),
    )

  /** First what is still on its way. */
  async function end(): Promise<boolean> {
    await send()
    if (unsent.value > 0) return false
    return act(() =>
      ask(
        api.POST('/api/sections/{section}/end-quiz', {
          params: { path: { section }, header: once() },
          body: { item, n: attempt },
        }),
      ),
    )
  }

  onScopeDispose(() => clearTimeout(timer))

  return { take, answer, begin, end, waiting, unsent, away, late, busy, problem }
}
