import { type Ref, computed } from 'vue'
import { type Schemas } from '../foundation/api/client'
import { useEditionCommand, useTermCommand } from '../foundation/commands/useEditionCommand'
import { questions } from '../foundation/api/questions'
import { useAnswer } from '../foundation/useAnswer'

/** What keeps a history: an edition, or a term's calendar. */
export type Kept = { edition: number } | { term: number }

type Change = Pick<Schemas['HistoryEntry'], 'batch' | 'mine' | 'undone' | 'isUndo' | 'isRedo' | 'words'>

/**
 * One step back and one step forth of one's own: the latest change of one's own that stands, and the latest taking back,
 * as long as nothing else was done after it.
 * @param changes The latest first.
 */
export function stepsOf(changes: readonly Change[]) {
  const own = changes.filter((change) => change.mine && !change.undone)
  const latest = own.find((change) => !change.isRedo)
  return { back: own.find((change) => !change.isUndo), forth: latest?.isUndo ? latest : undefined }
}

/** The latest changes of it, and taking one back. */
export function useHistory(kept: Ref<Kept>) {
  const edition = computed(() => ('edition' in kept.value ? kept.value.edition : 0))
  const term = computed(() => ('term' in kept.value ? kept.value.term : 0))
  const history = useAnswer(() =>
    edition.value ? questions.history(edition.value) : questions.termHistory(term.value),
  )
  const undo = edition.value
    ? useEditionCommand(edition, '/api/editions/{edition}/undo')
    : useTermCommand(term, '/api/terms/{term}/undo')
  const changes = computed(() => history.data.value?.changes ?? [])
  const own = computed(() => stepsOf(changes.value))
  return { changes, back: computed(() => own.value.back), forth: computed(() => own.value.forth), undo }
}
