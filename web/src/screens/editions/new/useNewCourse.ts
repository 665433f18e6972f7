import { computed, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useLook } from '../../../foundation/commands/useLook'
import { useSend } from '../../../foundation/commands/useSend'

export type Level = Schemas['UnderstoodLine']['level']

/** A course on its way: what it is called, and its scheme of work, which is read while it is written. */
export function useNewCourse() {
  const router = useRouter()
  const places = useAnswer(() => questions.places())
  /** Those that are not over, the next one first. */
  const terms = computed(() => (places.data.value?.terms ?? []).filter((one) => !one.isOver).toReversed())
  const title = ref('')
  const subject = ref('')
  /** Null: unit, lesson and item. */
  const levels = ref<Schemas['LevelNames'] | null>(null)
  const term = ref<number | null>(null)
  const basis = ref<'meetings' | 'minutes'>('meetings')
  const scheme = ref('')
  /** What was said of a line, by what is written on it. */
  const said = reactive(new Map<string, Level>())
  watch(terms, (now) => (term.value ??= now[0]?.term ?? null), { immediate: true })

  const answers = computed(() =>
    scheme.value.split(/\r\n|\r|\n/).flatMap((text, n) => {
      const level = said.get(text.trim())
      return level && text.trim() ? [{ line: n + 1, level }] : []
    }),
  )
  const request = computed<Schemas['MakeCourseRequest'] | null>(() =>
    term.value === null
      ? null
      : {
          title: title.value.trim() || 'A new course',
          term: term.value,
          basis: basis.value,
          scheme: scheme.value,
          answers: answers.value,
          subject: subject.value,
          levels: levels.value,
        },
  )
  const looking = useLook(
    computed(() => (scheme.value.trim() === '' ? null : request.value)),
    (body, signal) => ask(api.POST('/api/me/make-course', { params: { query: { preview: true } }, body, signal })),
    { keeps: true },
  )
  const making = useSend(
    (body: Schemas['MakeCourseRequest'], key) =>
      ask(api.POST('/api/me/make-course', { params: { header: once(key) }, body })),
    [keys.places],
  )

  async function make(empty: boolean): Promise<void> {
    if (!request.value || title.value.trim() === '') return
    const made = await making.run(empty ? { ...request.value, scheme: '', answers: [] } : request.value)
    if (made && made.edition !== null) await router.push({ name: 'outline', params: { edition: made.edition } })
  }

  return {
    places,
    terms,
    ...{ title, subject, term, basis, levels },
    scheme,
    shown: looking.answer,
    make,
    say: (line: number, level: Level) => {
      const text = scheme.value.split(/\r\n|\r|\n/)[line - 1]?.trim()
      if (text) said.set(text, level)
    },
    busy: making.busy,
    problem: computed(() => making.problem.value ?? looking.problem.value),
    ready: computed(() => title.value.trim() !== '' && term.value !== null),
  }
}
