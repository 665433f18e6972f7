import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { api, ask } from '../foundation/api/client'
import { keys } from '../foundation/keys'
import { useEditionCommand, useTermCommand } from '../foundation/useEditionCommand'

/** What keeps a history: an edition, or a term's calendar. */
export type Kept = { edition: number } | { term: number }

/** The latest changes of it, and taking one back. */
export function useHistory(kept: Ref<Kept>) {
  const edition = computed(() => ('edition' in kept.value ? kept.value.edition : 0))
  const term = computed(() => ('term' in kept.value ? kept.value.term : 0))
  const history = useQuery({
    shallow: true,
    queryKey: computed(() =>
      edition.value ? keys.history('edition', edition.value) : keys.history('term', term.value),
    ),
    queryFn: () =>
      ask(
        edition.value
          ? api.GET('/api/editions/{edition}/history', { params: { path: { edition: edition.value } } })
          : api.GET('/api/terms/{term}/history', { params: { path: { term: term.value } } }),
      ),
  })
  const undo = edition.value
    ? useEditionCommand(edition, '/api/editions/{edition}/undo')
    : useTermCommand(term, '/api/terms/{term}/undo')
  const changes = computed(() => history.data.value?.changes ?? [])
  /** The latest change of one's own that still stands and took nothing back itself. */
  const ownLatest = computed(() => changes.value.find((change) => change.mine && !change.undone && !change.isUndo))
  return { changes, ownLatest, undo }
}
