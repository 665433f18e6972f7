import { type Ref, computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { base64Of } from '../../foundation/base64'
import { keys } from '../../foundation/keys'
import { useLook } from '../../foundation/commands/useLook'
import { useSend } from '../../foundation/commands/useSend'
import { type Column, lacking } from './roster'

/** A roster on its way in: chosen, its columns named, looked at row by row, and imported. */
export function useRoster(term: Ref<number>) {
  /** Raised when a file is done with: the next one is chosen anew. */
  const round = ref(0)
  const file = ref<{ name: string; base64: string; fetch: number | null } | null>(null)
  const columns = ref<{ headings: string[]; are: Column[]; remembered: boolean } | null>(null)
  const from = ref<string | null>(null)
  const endMissing = ref(false)
  const done = ref<Schemas['ImportRosterAnswer'] | null>(null)

  const request = computed<Schemas['ImportRosterRequest'] | null>(() =>
    file.value && from.value && (!columns.value || lacking(columns.value.are) === null)
      ? {
          term: term.value,
          fileName: file.value.name,
          file: file.value.base64,
          columns: columns.value?.are ?? null,
          from: from.value,
          endMissing: endMissing.value,
          fetch: file.value.fetch,
        }
      : null,
  )
  const heading = useSend((body: Schemas['RosterColumnsRequest']) =>
    ask(api.POST('/api/school/roster-columns', { body })),
  )
  /** What it would do; nothing was looked at as it is now: null. */
  const looking = useLook(request, (body, signal) =>
    ask(api.POST('/api/school/import-roster', { params: { query: { preview: true } }, body, signal })),
  )
  const importing = useSend(
    (body: Schemas['ImportRosterRequest'], key) =>
      ask(api.POST('/api/school/import-roster', { params: { header: once(key) }, body })),
    [keys.term(term.value), keys.places, keys.people, ['edition']],
  )
  const takingBack = useSend(
    (body: Schemas['TakeBackRosterRequest'], key) =>
      ask(api.POST('/api/school/take-back-roster', { params: { header: once(key) }, body })),
    [keys.term(term.value), keys.places, keys.people, ['edition']],
  )

  /** @param fetch Which fetched roster it is; null: it was chosen here. */
  async function choose(chosen: File | File[] | null, fetch: number | null = null): Promise<void> {
    const picked = Array.isArray(chosen) ? chosen[0] : chosen
    file.value = null
    columns.value = null
    done.value = null
    for (const one of [heading, importing]) one.forget()
    if (!picked) return
    const base64 = await base64Of(picked)
    const read = await heading.run({ file: base64 })
    if (!read) return
    columns.value = read.isTable ? { headings: read.headings, are: read.columns, remembered: read.remembered } : null
    file.value = { name: picked.name, base64, fetch }
  }

  async function send(): Promise<void> {
    const answer = request.value && (await importing.run(request.value))
    if (!answer) return
    file.value = null
    columns.value = null
    done.value = answer
    round.value++
  }

  return {
    round,
    file,
    columns,
    from,
    endMissing,
    shown: looking.answer,
    done,
    choose,
    send,
    lacks: computed(() => (columns.value ? lacking(columns.value.are) : null)),
    reading: computed(() => heading.busy.value || looking.busy.value),
    importing: importing.busy,
    problem: computed(() => heading.problem.value ?? looking.problem.value ?? importing.problem.value),
    takeBack: (number: number) => takingBack.run({ term: term.value, import: number }),
    backProblem: takingBack.problem,
  }
}
