import { type Ref, computed } from 'vue'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import { useAnswer } from '../../../foundation/useAnswer'
import { rowsOf } from '../outlineRows'

/**
 * What can be opened by an item's score or option, and how the conditions are set together.
 * @param wanted What each of them is to wait for; null: for nothing any more.
 */
export function useBranches(edition: Ref<number>, item: string, wanted: Ref<ReadonlyMap<string, unknown> | null>) {
  const conditions = useAnswer(() => questions.conditions(edition.value))
  const outline = useAnswer(() => questions.outline(edition.value))
  const items = computed(() =>
    (outline.data.value ? rowsOf(outline.data.value) : []).flatMap((row) =>
      row.level === 'item' && row.item.lineage !== item ? [row.item] : [],
    ),
  )
  const choices = computed(() =>
    items.value.map((one) => ({ value: one.lineage, title: `${one.code} ${one.title}`, note: one.kind })),
  )
  const set = useEditionCommand(edition, '/api/editions/{edition}/set-conditions')
  const request = computed(() => {
    const found = [...(wanted.value ?? [])].flatMap(([lineage, gate]) => {
      const one = items.value.find((known) => known.lineage === lineage)
      return one ? [{ item: one.id, gate, version: one.version }] : []
    })
    return found.length ? { conditions: found } : null
  })
  const reach = useReach(request, set.preview)
  /** Sets them; what is wrong stands in the problem. */
  const send = (done: () => void) =>
    request.value ? set.run(request.value).then(done, () => undefined) : Promise.resolve()
  const ready = computed(() => request.value !== null && !set.busy.value)
  return { conditions, items, choices, problem: set.problem, ready, reach, send }
}
