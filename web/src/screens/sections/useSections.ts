import { computed } from 'vue'
import { type Schemas } from '../../foundation/api/client'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { questions } from '../../foundation/api/questions'

export type Card = Schemas['SectionCard']
export type Difference = Schemas['DifferenceHere']

/** The sections that follow an edition: their classes as Pace has them, and all they do differently. */
export function useSections(props: { edition: number }) {
  const viewpoint = useViewpoint()
  const pace = useAnswer(() => questions.pace(props.edition, viewpoint.query.value))
  const sections = useAnswer(() => questions.sections(props.edition, viewpoint.query.value))
  const again = () => Promise.all([pace.refetch(), sections.refetch()])
  return { pace, sections, again, problem: computed(() => sections.problem.value ?? pace.problem.value) }
}
