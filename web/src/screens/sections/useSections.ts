import { computed } from 'vue'
import { type Schemas, api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'

export type Card = Schemas['SectionCard']
export type Difference = Schemas['DifferenceHere']

/** The sections that follow an edition: their classes as Pace has them, and all they do differently. */
export function useSections(props: { edition: number }) {
  const viewpoint = useViewpoint()
  const at = () => ({ params: { path: { edition: props.edition }, query: viewpoint.query.value } })
  const pace = useAnswer(
    computed(() => keys.ofEdition(props.edition, 'pace', viewpoint.key.value)),
    () => api.GET('/api/editions/{edition}/pace', at()),
  )
  const sections = useAnswer(
    computed(() => keys.ofEdition(props.edition, 'sections', viewpoint.key.value)),
    () => api.GET('/api/editions/{edition}/sections', at()),
  )
  return { pace, sections, problem: computed(() => sections.problem.value ?? pace.problem.value) }
}
