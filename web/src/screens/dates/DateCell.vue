<script setup lang="ts">
import { type Block, type Place, holds } from './dateBlock'
import { type Answer, type Cell, type Field, differenceOf, fieldWords } from './dateCells'

/** An item's dates in one section: a button for each that is shown. */
const props = defineProps<{
  cell: Cell
  code: string
  section: Answer['sections'][number]
  fields: readonly Field[]
  place: Place
  block: Block | null
  /** The one cell that the Tab key comes to. */
  active: Block
}>()
const emit = defineEmits<{ enter: []; begin: [field: Field, event: PointerEvent] }>()

const isActive = (field: Field) =>
  props.active.field === field &&
  props.active.to.row === props.place.row &&
  props.active.to.column === props.place.column

function said(cell: Cell, field: Field): string {
  if (cell[field]) return cell[field].words
  if (field === 'opens') return cell.unresolved ? 'does not fit' : 'at once'
  return field === 'due' ? 'no due' : 'stays open'
}
</script>

<template>
  <span
    role="gridcell"
    class="cell"
    :class="{ differs: cell.differs.length > 0 }"
    :title="cell.toCheck.join('\n') || undefined"
    @pointerenter="emit('enter')"
  >
    <button
      v-for="field in fields"
      :key="field"
      type="button"
      class="date"
      :class="{
        own: differenceOf(cell, field),
        in: holds(block, field, place.row, place.column),
        gone: cell.skipped,
      }"
      :tabindex="isActive(field) ? 0 : -1"
      :data-cell="`${code} ${field} ${section.name}`"
      @pointerdown="emit('begin', field, $event)"
    >
      <span v-if="cell.absent" class="small" title="It is of another section only">–</span>
      <span v-else-if="cell.skipped" class="small">{{ field === fields[0] ? 'dropped here' : '' }}</span>
      <template v-else>
        <span v-if="cell[field]" :class="field === 'opens' ? 'said-only' : 'small word'">{{
          field === 'due' ? 'due' : fieldWords[field]
        }}</span>
        <span :class="{ small: !cell[field] }">{{ said(cell, field) }}</span>
        <span v-if="cell.held && field === fields[0]" class="small after">kept back</span>
        <span
          v-if="field === fields[0] && cell.students < section.students"
          class="small after"
          :title="`It is for ${cell.students} of ${section.students} students here`"
          >for {{ cell.students }}</span
        >
        <span v-if="field === 'opens' && cell.hasOpened" class="said-only">has opened</span>
      </template>
      <span class="said-only"
        >, {{ code }}, {{ section.name }}{{ differenceOf(cell, field) ? ', differs from the course' : '' }}</span
      >
    </button>
    <span v-if="cell.toCheck.length > 0" class="check accent" aria-label="to check">?</span>
  </span>
</template>

<style scoped>
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
