import { type Ref, computed } from 'vue'
import { api } from '../../../foundation/api/client'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { livesOfItems, livesOfLessons } from './lives'
import type { Row } from '../outlineRows'

/** What becomes of every row in every section, read beside the outline: what is shown, and no more. */
export function useLives(edition: Ref<number>, rows: Ref<Row[]>, show: Ref<string>) {
  const viewpoint = useViewpoint()
  const at = () => ({ params: { path: { edition: edition.value }, query: viewpoint.query.value } })
  const keyOf = (what: string) => computed(() => keys.ofEdition(edition.value, what, viewpoint.key.value))
  const ribbon = useAnswer(keyOf('ribbon'), () => api.GET('/api/editions/{edition}/ribbon', at()))
  const dates = useAnswer(keyOf('dates'), () => api.GET('/api/editions/{edition}/dates', at()))
  const isCounted = computed(() => show.value === 'handed-in')
  const isDated = computed(() => !isCounted.value)
  const pace = useAnswer(keyOf('pace'), () => api.GET('/api/editions/{edition}/pace', at()), { enabled: isDated })
  const handedIn = useAnswer(keyOf('handed-in'), () => api.GET('/api/editions/{edition}/handed-in', at()), {
    enabled: isCounted,
  })

  const lives = computed(() => {
    const term = ribbon.data.value
    if (!term) return new Map<string, never>()
    return new Map([
      ...(dates.data.value ? livesOfItems(dates.data.value, term.origin, term.momentAt) : []),
      ...(pace.data.value ? livesOfLessons(pace.data.value, rows.value, term.origin, term.momentAt) : []),
    ])
  })
  /** How many have handed in, by the item's row, of those it is for. */
  const counts = computed(() => {
    const done = new Map((handedIn.data.value?.items ?? []).map((row) => [row.item, row.students]))
    const { sections = [], units = [] } = dates.data.value ?? {}
    return new Map(
      units.flatMap((unit) =>
        unit.items
          .filter((row) => row.kind === 'task' || done.has(row.item))
          .map((row) => [
            `item-${row.item}`,
            row.cells.map((cell, n) => ({
              letter: sections[n]!.letter,
              name: sections[n]!.name,
              done: done.get(row.item)?.[n] ?? 0,
              of: cell.students,
            })),
          ]),
      ),
    )
  })
  const scale = computed(() => ribbon.data.value ?? null)
  return { lives, counts, scale }
}
