import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { api, ask } from '../foundation/api/client'
import { keys } from '../foundation/keys'
import { useCommand } from '../foundation/useCommand'

/** The latest changes of an edition, and taking one back. */
export function useHistory(edition: Ref<number>) {
  const history = useQuery({
    queryKey: computed(() => keys.history(edition.value)),
    queryFn: () => ask(api.GET('/api/editions/{edition}/history', { params: { path: { edition: edition.value } } })),
  })
  const undo = useCommand<{ batch: number }>(edition, (body, { params }) =>
    api.POST('/api/editions/{edition}/undo', { params: { ...params, path: { edition: edition.value } }, body }),
  )
  const changes = computed(() => history.data.value?.changes ?? [])
  /** The latest change of one's own that still stands and took nothing back itself. */
  const ownLatest = computed(() => changes.value.find((change) => change.mine && !change.undone && !change.isUndo))
  return { changes, ownLatest, undo }
}
