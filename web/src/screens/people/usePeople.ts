import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { type Only, type PersonRow, matching, onlyWords } from './people'

/** A link just made: shown once, to be passed on. */
export interface MadeLink {
  name: string
  email: string
  address: string
}

/** Everybody with an account: found, added, invited, deactivated and put back. What is looked for stands in the address. */
export function usePeople() {
  const route = useRoute()
  const router = useRouter()
  const answer = useAnswer(() => questions.people())

  const text = (name: string) => {
    const value = route.query[name]
    return typeof value === 'string' ? value : ''
  }
  const put = (name: string, value: string) =>
    void router.replace({ query: { ...route.query, [name]: value || undefined } })
  const words = computed({ get: () => text('words').slice(0, 200), set: (value) => put('words', value) })
  const only = computed<Only>({
    get: () => (Object.hasOwn(onlyWords, text('only')) ? (text('only') as Only) : ''),
    set: (value) => put('only', value),
  })
  const people = computed(() => answer.data.value?.people ?? [])
  const shown = computed(() => matching(people.value, words.value, only.value))

  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  const links = ref<MadeLink[]>([])
  /** What was done last, in words. */
  const said = ref('')

  async function does<T>(what: () => Promise<T>, done: (answer: T) => void): Promise<boolean> {
    if (busy.value) return false
    busy.value = true
    problem.value = null
    try {
      done(await what())
      await answer.refetch()
      return true
    } catch (error) {
      problem.value = problemOf(error)
      return false
    } finally {
      busy.value = false
    }
  }

  const header = () => ({ params: { header: once() } })
  const add = (newcomers: Schemas['NewPerson'][]) =>
    does(
      () => ask(api.POST('/api/school/add-people', { ...header(), body: { people: newcomers } })),
      (answered) => {
        said.value = `${answered.sentence}.`
        links.value = answered.people.flatMap(({ name, email, address }) => (address ? [{ name, email, address }] : []))
      },
    )
  const invite = ({ person, name, email }: PersonRow) =>
    does(
      () => ask(api.POST('/api/school/invite-again', { ...header(), body: { person } })),
      ({ address }) => {
        said.value = `There is a new link for ${name}; the one before is good no longer.`
        links.value = [{ name, email, address }]
      },
    )
  const one =
    (path: '/api/school/deactivate-person' | '/api/school/reactivate-person' | '/api/school/end-sessions') =>
    async (row: PersonRow, words: string) =>
      does(
        () => ask(api.POST(path, { ...header(), body: { person: row.person } })),
        () => {
          links.value = []
          said.value = words
        },
      )
  const deactivate = one('/api/school/deactivate-person')
  const reactivate = one('/api/school/reactivate-person')
  const endSessions = one('/api/school/end-sessions')
  const setRole = ({ person, name }: PersonRow, role: 'office' | 'teacher', has: boolean) =>
    does(
      () => ask(api.POST('/api/school/set-role', { ...header(), body: { person, role, has } })),
      () => {
        links.value = []
        said.value =
          role === 'office'
            ? `${name} ${has ? 'works in the office now' : 'no longer works in the office'}.`
            : `${name} ${has ? 'can make courses now' : 'makes no new courses from now on; what they teach stays theirs'}.`
      },
    )

  return {
    ...{ answer, people, shown, words, only, busy, problem, links, said },
    ...{ add, invite, deactivate, reactivate, endSessions, setRole },
  }
}
