<script setup lang="ts">
import { computed } from 'vue'
import { cellsOf, textOf } from './copyText'

/** A comma-separated text as cells to type in. */
const props = defineProps<{ text: string; name: string; disabled?: boolean }>()
const emit = defineEmits<{ write: [text: string] }>()

const cells = computed(() => cellsOf(props.text))

/** In characters: the longest of a column, within bounds. */
const widths = computed(() =>
  cells.value[0]!.map((_, at) => Math.min(40, Math.max(8, ...cells.value.map((row) => row[at]!.length + 4)))),
)

function put(row: number, column: number, typed: string): void {
  const changed = cells.value.map((one) => [...one])
  changed[row]![column] = typed
  emit('write', textOf(changed, props.text))
}

const addRow = () => emit('write', textOf([...cells.value, cells.value[0]!.map(() => '')], props.text))

/** Up and down as in any table; Enter goes down. */
function move(event: KeyboardEvent, row: number, column: number): void {
  const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0
  if (by === 0) return
  event.preventDefault()
  const table = (event.target as HTMLElement).closest('table')
  table?.querySelector<HTMLInputElement>(`[data-cell="${row + by}-${column}"]`)?.focus()
}
</script>

<template>
  <div class="cells">
    <div class="scroll" role="group" :aria-label="name">
      <table>
        <tbody>
          <tr v-for="(row, at) in cells" :key="at">
            <td v-for="(cell, column) in row" :key="column">
              <input
                :value="cell"
                :data-cell="`${at}-${column}`"
                :aria-label="
                  at === 0
                    ? `Heading of column ${column + 1}`
                    : `Row ${at}, ${cells[0]![column] || `column ${column + 1}`}`
                "
                :class="{ heading: at === 0 }"
                :style="{ minWidth: `${widths[column]}ch` }"
                :disabled="disabled"
                maxlength="2000"
                autocomplete="off"
                @input="put(at, column, ($event.target as HTMLInputElement).value)"
                @keydown="move($event, at, column)"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p><button type="button" class="word-button small" :disabled="disabled" @click="addRow">Add a row</button></p>
  </div>
</template>

<style scoped>
.cells {
  display: grid;
  gap: var(--space-3);
}
.scroll {
  max-height: 420px;
  overflow: auto;
}
table {
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
td {
  padding: 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
input {
  width: 100%;
  min-height: 32px;
  padding: var(--space-2) var(--space-4);
  background: transparent;
  color: inherit;
  font: inherit;
  border: 0;
}
input:focus-visible {
  background: var(--sheet);
}
.heading {
  font-weight: 600;
}
</style>
