import { useQuery } from '@tanstack/vue-query'
import { type Ref, computed } from 'vue'
import { api, ask, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import { factsOf, rowsOf } from './outlineRows'

/** The outline of an edition, as rows from top to bottom. */
export function useOutline(edition: Ref<number>) {
  const viewpoint = useViewpoint()
  const levels = useLevels()
  const outline = useQuery({
    queryKey: computed(() => keys.ofEdition(edition.value, 'outline', viewpoint.key.value)),
    shallow: true,
    queryFn: () =>
      ask(
        api.GET('/api/editions/{edition}/outline', {
          params: { path: { edition: edition.value }, query: viewpoint.query.value },
        }),
      ),
  })
  return {
    outline: outline.data,
    problem: computed(() => (outline.error.value ? problemOf(outline.error.value) : null)),
    rows: computed(() => (outline.data.value ? rowsOf(outline.data.value) : [])),
    facts: computed(() => (outline.data.value ? factsOf(outline.data.value, levels.value) : [])),
  }
}
