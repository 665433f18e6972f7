import { type Ref, computed } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import type { Move } from './outlineMoves'
import type { Row } from './outlineRows'

/** What a team does with a row of the outline: moving and removing it. Each is one command, undone with one press. */
export function useOutlineEdits(edition: Ref<number>) {
  const moveUnit = useEditionCommand(edition, '/api/editions/{edition}/move-unit')
  const moveLesson = useEditionCommand(edition, '/api/editions/{edition}/move-lesson')
  const moveItem = useEditionCommand(edition, '/api/editions/{edition}/move-item')
  const removeUnit = useEditionCommand(edition, '/api/editions/{edition}/remove-unit')
  const removeLesson = useEditionCommand(edition, '/api/editions/{edition}/remove-lesson')
  const removeItem = useEditionCommand(edition, '/api/editions/{edition}/remove-item')
  const all = [moveUnit, moveLesson, moveItem, removeUnit, removeLesson, removeItem]

  const run = (move: Move) =>
    move.of === 'unit'
      ? moveUnit.run(move.request)
      : move.of === 'lesson'
        ? moveLesson.run(move.request)
        : moveItem.run(move.request)

  const remove = (row: Row) =>
    row.level === 'unit'
      ? removeUnit.run({ unit: row.unit.id, version: row.unit.version })
      : row.level === 'lesson'
        ? removeLesson.run({ lesson: row.lesson.id, version: row.lesson.version })
        : removeItem.run({ item: row.item.id, version: row.item.version })

  return {
    /** What is wrong is told where the list stands; nothing was changed. */
    move: (move: Move | null) => (move ? run(move).catch(() => null) : Promise.resolve(null)),
    remove: (row: Row) => remove(row).catch(() => null),
    busy: computed(() => all.some((command) => command.busy.value)),
    problem: computed(() => all.map((command) => command.problem.value).find((problem) => problem) ?? null),
    forget: () => all.forEach((command) => command.reset()),
  }
}
