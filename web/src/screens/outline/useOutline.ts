import { type Ref, computed } from 'vue'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import { factsOf, rowsOf } from './outlineRows'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

/** The outline of an edition, as rows from top to bottom. */
export function useOutline(edition: Ref<number>) {
  const viewpoint = useViewpoint()
  const levels = useLevels()
  const outline = useAnswer(() => questions.outline(edition.value, viewpoint.query.value))
  return {
    outline: outline.data,
    problem: outline.problem,
    again: outline.refetch,
    rows: computed(() => (outline.data.value ? rowsOf(outline.data.value) : [])),
    facts: computed(() => (outline.data.value ? factsOf(outline.data.value, levels.value) : [])),
  }
}
