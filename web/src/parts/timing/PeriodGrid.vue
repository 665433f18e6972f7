<script setup lang="ts">
import { computed } from 'vue'
import { type DayChoice, gridOf, isIn, toggled } from './periodGrid'
import type { SlotDraft } from './slots'

/** When a section meets: the periods of the week, pressed one by one. Periods that follow each other are one class. */
const props = defineProps<{
  days: readonly DayChoice[]
  periods: readonly { name: string; start: string; end: string }[]
}>()
const drafts = defineModel<SlotDraft[]>({ required: true })

const grid = computed(() => gridOf(props.days))
const names = computed(() => props.periods.map((period) => period.name))
const groups = computed(() => (grid.value.weeks.length ? grid.value.weeks : ['']))

function press(label: string, period: string): void {
  drafts.value = toggled(drafts.value, grid.value.rows, names.value, label, period)
}
</script>

<template>
  <table class="grid">
    <caption class="said-only">
      When it meets
    </caption>
    <thead>
      <tr v-if="grid.weeks.length">
        <td />
        <th v-for="week in grid.weeks" :key="week" :colspan="periods.length" scope="colgroup" class="small">
          week {{ week }}
        </th>
      </tr>
      <tr>
        <td />
        <template v-for="week in groups" :key="week">
          <th
            v-for="(period, n) in periods"
            :key="period.name"
            scope="col"
            class="small"
            :class="{ first: n === 0 }"
            :title="`${period.start}–${period.end}`"
          >
            {{ period.name }}
          </th>
        </template>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in grid.rows" :key="row.words">
        <th scope="row">{{ row.words }}</th>
        <template v-for="(label, week) in row.labels" :key="label">
          <td v-for="(period, n) in periods" :key="period.name" :class="{ first: n === 0 }">
            <button
              type="button"
              class="cell"
              :class="{ chosen: isIn(drafts, label, period.name) }"
              :aria-pressed="isIn(drafts, label, period.name)"
              :aria-label="`${groups[week] ? `week ${groups[week]}, ` : ''}${row.words}, ${period.name}`"
              @click="press(label, period.name)"
            />
          </td>
        </template>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.grid {
  border-collapse: collapse;
}
th {
  padding: 0 var(--space-3) var(--space-2) 0;
  color: var(--ink-2);
  font-weight: 400;
  text-align: left;
}
thead th {
  text-align: center;
  padding: 0 0 var(--space-2);
}
td.first,
th.first {
  padding-left: var(--space-6);
}
tr > td:nth-child(2).first,
tr > th:nth-child(2).first {
  padding-left: 0;
}
.cell {
  display: block;
  width: 38px;
  height: 22px;
  border: var(--stroke-hair) solid var(--faint-hair);
  background: var(--sheet);
}
.cell:hover {
  border-color: var(--ink);
}
.cell.chosen {
  background: var(--ink);
  border-color: var(--ink);
}
</style>
