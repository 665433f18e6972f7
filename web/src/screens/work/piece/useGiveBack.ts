import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { useSend } from '../../../foundation/commands/useSend'
import { keys } from '../../../foundation/keys'
import { WRITING } from '../../../foundation/session'
import { type Remark, remarksIn } from '../../../parts/remarks/remarks'

/** Writing feedback on a piece and giving it back: what opens by it stands there before. */
export function useGiveBack(
  edition: number,
  section: number,
  piece: () => Schemas['WorkPiece'],
  /** Whether there is something to give: it waits, or what was given is being corrected. */
  isOpen: () => boolean,
  /** What is still to be chosen before it can go back, in words; empty: nothing. */
  lacking: (mark: Schemas['MarkGiven'] | null) => string,
) {
  const text = ref('')
  const again = ref(false)
  /** In the margin, each at its place. */
  const remarks = ref<Remark[]>([])
  /** Null: in words only, or no mark yet. */
  const mark = ref<Schemas['MarkGiven'] | null>(null)
  /** Of what several handed in together: only to this one. */
  const alone = ref(false)
  const sentence = ref('')
  /** What an earlier mark had opened and this one closes. */
  const closes = ref<number[]>([])
  /** Whether anything stays open only because of an earlier mark; and that it closes instead. */
  const stays = ref(false)
  const close = ref(false)
  const request = computed(() => ({
    work: piece().work ?? 0,
    n: piece().n,
    text: text.value,
    again: again.value,
    alone: alone.value,
    mark: mark.value,
    close: close.value,
    remarks: remarks.value.filter((one) => one.text.trim()),
  }))

  // What is written stays on this device until it is given back: reading another piece meanwhile loses nothing.
  const place = `${WRITING}piece-${section}-${piece().work}-${piece().n}`
  function bring(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(place) ?? '{}') as Partial<Schemas['GiveBackRequest']>
      text.value = kept.text ?? ''
      again.value = kept.again ?? false
      mark.value = kept.mark ?? null
      remarks.value = remarksIn(kept.remarks)
    } catch {
      localStorage.removeItem(place)
    }
  }
  if (!piece().back && !piece().ready?.isOwn) bring()
  watch([text, again, mark, remarks], () => {
    if (!isOpen()) return
    const { text: said, again: isAgain, mark: given, remarks: made } = request.value
    if (said || isAgain || given || made.length)
      localStorage.setItem(place, JSON.stringify({ text: said, again: isAgain, mark: given, remarks: made }))
    else localStorage.removeItem(place)
  })
  const settled = refDebounced(
    computed(() => [piece().work, again.value, alone.value, mark.value, close.value, isOpen()] as const),
    100,
  )

  watch(
    settled,
    async () => {
      sentence.value = ''
      closes.value = []
      stays.value = false
      if (!piece().work || !isOpen()) return
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
        closes.value = shown.closes
        stays.value = shown.stays ?? false
      } catch (error) {
        sentence.value = problemOf(error).title
      }
    },
    { immediate: true },
  )

  const { run, busy, problem } = useSend(
    ({ later, body }: { later: boolean; body: Schemas['GiveBackRequest'] }, key) => {
      const how = { params: { path: { section }, header: once(key) }, body }
      return later
        ? ask(api.POST('/api/sections/{section}/ready-mark', how))
        : ask(api.POST('/api/sections/{section}/give-back', how))
    },
    [keys.edition(edition)],
  )
  /** @param later It is ready, and goes back later, with others. */
  async function give(later = false): Promise<boolean> {
    if (!(await run({ later, body: request.value }))) return false
    text.value = ''
    remarks.value = []
    localStorage.removeItem(place)
    return true
  }

  /** What was given, or one left ready, stands in the fields to be put right; beside what somebody else left, one's own begins. */
  function correct(): void {
    const { back, ready } = piece()
    if (ready && !back) return !ready.isOwn ? bring() : fill(ready.back, ready.back.mark ?? null)
    if (!back) return
    const isByPresent = !back.mark?.rubric || back.mark.rubric.is === piece().rubric
    fill(
      back,
      back.mark && isByPresent
        ? { value: back.mark.value, level: back.mark.level, rubric: back.mark.rubric?.levels ?? null }
        : null,
    )
  }
  function fill(
    from: { text: string; again: boolean; alone?: boolean; remarks?: Schemas['Remark'][] },
    given: Schemas['MarkGiven'] | null,
  ): void {
    text.value = from.text
    again.value = from.again
    alone.value = from.alone ?? false
    remarks.value = remarksIn(from.remarks)
    mark.value = given
  }

  return { text, remarks, mark, again, alone, busy, problem, sentence, closes, stays, close, correct, give }
}
