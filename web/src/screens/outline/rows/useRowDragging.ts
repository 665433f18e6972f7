import { type Ref, watch } from 'vue'
import { useDraggable } from 'vue-draggable-plus'
import type { Row } from '../outlineRows'

/**
 * Moving a row by mouse or finger. Sortable moves the element itself; it is put back where it was, and the course decides
 * where its row goes.
 * @param drop The row that was moved, and the one it was let go under; null: it was let go on top.
 */
export function useRowDragging(
  list: Readonly<Ref<HTMLElement | null>>,
  rows: Ref<Row[]>,
  drop: (row: Row, above: Row | null) => void,
  canChange: Ref<boolean>,
): void {
  let next: Node | null = null
  const sorting = useDraggable(list as Ref<HTMLElement>, {
    immediate: false,
    draggable: '.row',
    filter: 'input, .pick, .fold, .insert',
    preventOnFilter: false,
    // A finger scrolls, unless it stays a moment.
    delay: 150,
    delayOnTouchOnly: true,
    forceFallback: true,
    fallbackTolerance: 4,
    onStart({ item }) {
      next = item.nextSibling
    },
    // Counted among the rows alone: what stands open under one is no row.
    onEnd({ item, oldDraggableIndex: from, newDraggableIndex: to }) {
      list.value?.insertBefore(item, next)
      const row = from === undefined ? undefined : rows.value[from]
      if (!row || to === undefined || from === to) return
      drop(row, rows.value.filter((one) => one !== row)[to - 1] ?? null)
    },
  })
  watch([list, canChange], ([there, can]) => there && can && sorting.start(), { flush: 'post' })
}
