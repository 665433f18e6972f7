import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import { type Only, type PersonRow, type Role, matching, onlyWords } from './people'

/** A link just made: shown once, to be passed on. */
export interface MadeLink {
  name: string
  email: string
  address: string
}

/** What came of it, in words, with the links that were made. */
interface Done {
  words: string
  links: MadeLink[]
}

/**
 * Everybody with an account: found, added, invited, deactivated and reactivated. What is looked for, and whose account is
 * open, stand in the address.
 */
export function usePeople() {
  const route = useRoute()
  const router = useRouter()
  const answer = useAnswer(() => questions.people())

  const written = (name: string) => {
    const value = route.query[name]
    return typeof value === 'string' ? value : ''
  }
  const write = (name: string, value: string) =>
    void router.replace({ query: { ...route.query, [name]: value || undefined } })
  const words = computed({ get: () => written('words').slice(0, 200), set: (value) => write('words', value) })
  const only = computed<Only>({
    get: () => (Object.hasOwn(onlyWords, written('only')) ? (written('only') as Only) : ''),
    set: (value) => write('only', value),
  })
  const opened = computed({
    get: () => Number(written('person')) || null,
    set: (person) => write('person', person === null ? '' : `${person}`),
  })
  const people = computed(() => answer.data.value?.people ?? [])
  const shown = computed(() => matching(people.value, words.value, only.value))

  const done = ref<Done | null>(null)
  const { run, busy, problem } = useSend(
    ({ act }: { asked: unknown; act: (key: string) => Promise<Done> }, key) => act(key),
    [keys.people],
  )
  /** @param asked What is asked, by which the same thing sent again is known. */
  async function does(asked: unknown, act: (key: string) => Promise<Done>): Promise<boolean> {
    const came = await run({ asked, act })
    if (came) done.value = came
    return came !== null
  }
  const header = (key: string) => ({ params: { header: once(key) } })

  /** Whether links go out by mail, unless the office would rather pass them on. */
  const byMail = ref(true)
  const mailed = computed(() => (answer.data.value?.hasMail ?? false) && byMail.value)
  const add = (newcomers: Schemas['NewPerson'][]) =>
    does([newcomers, mailed.value], async (key) => {
      const body = { people: newcomers, byMail: mailed.value }
      const added = await ask(api.POST('/api/school/add-people', { ...header(key), body }))
      const links = added.people.flatMap(({ name, email, address }) => (address ? [{ name, email, address }] : []))
      return { words: `${added.sentence}.`, links }
    })
  const invite = (invited: readonly PersonRow[], mail: boolean) =>
    does(['invite', invited.map(({ person }) => person), mail], async (key) => {
      const body = { people: invited.map(({ person }) => person), byMail: mail }
      const { sentence, people } = await ask(api.POST('/api/school/invite-people', { ...header(key), body }))
      const links = people.flatMap(({ name, email, address }) => (address ? [{ name, email, address }] : []))
      return { words: `${sentence}. Earlier ones no longer work.`, links }
    })
  const one =
    (
      path:
        | '/api/school/deactivate-person'
        | '/api/school/reactivate-person'
        | '/api/school/end-sessions'
        | '/api/school/separate-people',
    ) =>
    ({ person }: PersonRow, words: string) =>
      does([path, person], async (key) => {
        await ask(api.POST(path, { ...header(key), body: { person } }))
        return { words, links: [] }
      })
  const setRole = ({ person, name }: PersonRow, role: Role, has: boolean) =>
    does(['role', person, role, has], async (key) => {
      await ask(api.POST('/api/school/set-role', { ...header(key), body: { person, role, has } }))
      const words =
        role === 'office'
          ? `${name} ${has ? 'now works in the office' : 'no longer works in the office'}.`
          : `${name} ${has ? 'can now make courses' : 'can no longer make courses; those they teach stay theirs'}.`
      return { words, links: [] }
    })

  return {
    ...{ answer, people, shown, words, only, opened, busy, problem, done, add, invite, setRole, byMail },
    hasMail: computed(() => answer.data.value?.hasMail ?? false),
    deactivate: one('/api/school/deactivate-person'),
    reactivate: one('/api/school/reactivate-person'),
    separate: one('/api/school/separate-people'),
    endSessions: one('/api/school/end-sessions'),
  }
}
