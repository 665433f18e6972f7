import { type Ref, computed } from 'vue'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { livesOfItems, livesOfLessons } from './lives'
import type { Row } from '../outlineRows'
import { questions } from '../../../foundation/api/questions'

/** What becomes of every row in every section, read beside the outline: what is shown, and no more. */
export function useLives(edition: Ref<number>, rows: Ref<Row[]>, show: Ref<string>) {
  const viewpoint = useViewpoint()
  const ribbon = useAnswer(() => questions.ribbon(edition.value, viewpoint.query.value))
  const dates = useAnswer(() => questions.dates(edition.value, viewpoint.query.value))
  const isCounted = computed(() => show.value === 'handed-in')
  const isDated = computed(() => !isCounted.value)
  const pace = useAnswer(() => questions.pace(edition.value, viewpoint.query.value), { enabled: isDated })
  const handedIn = useAnswer(() => questions.handedIn(edition.value, viewpoint.query.value), { enabled: isCounted })

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
