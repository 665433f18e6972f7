<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import CheckMark from '../../parts/why/CheckMark.vue'
import StateMark from '../../look/marks/StateMark.vue'
import { type Block, type Place, holds, lineHeight } from './dateBlock'
import { type Answer, type Cell, type Field, differenceOf, fieldWords } from './dateCells'
import type { Row } from './dateRows'

/**
 * An item and its dates in every section, a button for each. It is drawn again only when one of these changes, not whenever the
 * table scrolls; and its cells are no parts of their own, because a large table has hundreds in view.
 */
const props = defineProps<{
  row: Row
  checks: readonly Schemas['RowCheck'][]
  /** Which row of the table it is, from 0. */
  at: number
  /** How far down it stands, in pixels. */
  start: number
  columns: Record<string, string>
  sections: Answer['sections']
  fields: readonly Field[]
  block: Block | null
  /** The one cell that the Tab key comes to. */
  active: Block
}>()
const emit = defineEmits<{ enter: [place: Place]; begin: [field: Field, place: Place, event: PointerEvent] }>()

const isActive = (field: Field, column: number) =>
  props.active.field === field && props.active.to.row === props.at && props.active.to.column === column

function said(cell: Cell, field: Field): string {
  if (cell[field]) return cell[field].words
  if (field === 'opens') return cell.unresolved ? 'does not fit' : 'at once'
  return field === 'due' ? 'no due date' : 'stays open'
}
</script>

<template>
  <div
    role="row"
    class="line"
    :aria-rowindex="at + 2"
    :style="{ ...columns, transform: `translateY(${start}px)`, height: `${lineHeight}px` }"
  >
    <span role="rowheader" class="item" :title="`${row.code} ${row.title}`">
      <span class="code">{{ row.code }}</span>
      <span class="title"
        >{{ row.title }} <StateMark v-if="!row.published" state="unpublished" alone /> <CheckMark :checks="checks"
      /></span>
      <span class="small timing">{{ row.due ? `due ${row.due}` : row.opens ? `opens ${row.opens}` : '' }}</span>
    </span>
    <span
      v-for="(cell, column) in row.cells"
      :key="column"
      role="gridcell"
      class="cell"
      :class="{ differs: cell.differs.length > 0 }"
      :title="cell.toCheck.join('\n') || undefined"
      @pointerenter="emit('enter', { row: at, column })"
    >
      <button
        v-for="field in fields"
        :key="field"
        type="button"
        class="date"
        :class="{
          own: differenceOf(cell, field),
          in: holds(block, field, at, column),
          gone: cell.skipped,
        }"
        :tabindex="isActive(field, column) ? 0 : -1"
        :data-cell="`${row.code} ${field} ${sections[column]!.name}`"
        @pointerdown="emit('begin', field, { row: at, column }, $event)"
      >
        <span v-if="cell.absent" class="small" title="It belongs to another section">–</span>
        <span v-else-if="cell.skipped" class="small">{{ field === fields[0] ? 'dropped here' : '' }}</span>
        <template v-else>
          <span v-if="cell[field]" :class="field === 'opens' ? 'said-only' : 'small word'">{{
            field === 'due' ? 'due' : fieldWords[field]
          }}</span>
          <span :class="{ small: !cell[field] }">{{ said(cell, field) }}</span>
          <span v-if="cell.held && field === fields[0]" class="small after">kept back</span>
          <span
            v-if="field === fields[0] && cell.students < sections[column]!.students"
            class="small after"
            :title="`It is for ${cell.students} of ${sections[column]!.students} students here`"
            >for {{ cell.students }}</span
          >
          <span v-if="field === 'opens' && cell.hasOpened" class="said-only">has opened</span>
        </template>
        <span class="said-only"
          >, {{ row.code }}, {{ sections[column]!.name
          }}{{ differenceOf(cell, field) ? ', differs from the course' : '' }}</span
        >
      </button>
      <span v-if="cell.toCheck.length > 0" class="check accent" aria-label="to check">?</span>
    </span>
  </div>
</template>

<style scoped>
.line {
  display: grid;
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.item {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--paper);
  padding: var(--space-2) var(--space-5) 0 0;
  overflow: hidden;
  display: grid;
  grid-template-columns: 44px minmax(0, 1fr);
  align-content: start;
}
.title,
.timing {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.code {
  color: var(--ink-2);
}
.timing {
  grid-column: 2;
}
.cell {
  position: relative;
  padding: var(--space-2) 0 0;
}
.differs {
  background: var(--wash);
}
.date {
  display: block;
  width: 100%;
  padding: 0 var(--space-4);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  user-select: none;
  touch-action: none;
}
.date:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.date.own {
  font-weight: 650;
}
.date.in {
  outline: var(--stroke-hair) solid var(--accent);
  outline-offset: calc(-1 * var(--stroke-hair));
}
.word {
  margin-right: var(--space-3);
}
.after {
  margin-left: var(--space-4);
}
.date.in:focus-visible {
  outline-width: var(--stroke-bold);
}
.date.gone {
  color: var(--ink-2);
}
.check {
  position: absolute;
  right: var(--space-3);
  top: var(--space-2);
  font-weight: 650;
}
</style>
