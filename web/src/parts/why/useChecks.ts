import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'

/** What was noticed of units, lessons and items, by row, such as `item-12`. */
export function useChecks(edition: () => number) {
  const viewpoint = useViewpoint()
  const answer = useAnswer(() => questions.checks(edition(), viewpoint.query.value))
  const byRow = computed(() => {
    const found = new Map<string, Schemas['RowCheck'][]>()
    for (const check of answer.data.value?.checks ?? [])
      for (const row of check.rows) found.set(row, [...(found.get(row) ?? []), check])
    return found
  })
  const none: Schemas['RowCheck'][] = []
  return (row: string): readonly Schemas['RowCheck'][] => byRow.value.get(row) ?? none
}

/** As it is said where its section is not seen. */
export const checkWords = ({ section, words }: Schemas['RowCheck']): string =>
  section === null ? words : `${section}: ${words}`
