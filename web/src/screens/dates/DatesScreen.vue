<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useScreenKeys } from '../../foundation/useKeys'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import StateMark from '../../look/marks/StateMark.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import DatePanel from './DatePanel.vue'
import { type Place, differenceOf } from './dateCells'

/** When does what open and fall due, where? Items down, sections across. */
const props = defineProps<{ edition: number }>()

const viewpoint = useViewpoint()
const dates = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'dates', viewpoint.key.value)),
  () =>
    api.GET('/api/editions/{edition}/dates', {
      params: { path: { edition: props.edition }, query: viewpoint.query.value },
    }),
)
const place = ref<Place | null>(null)
const wanted = ref('')
const onlyDiffering = ref(false)
const units = computed(() => {
  const written = wanted.value.trim().toLowerCase()
  return (dates.data.value?.units ?? [])
    .map((unit) => ({
      ...unit,
      items: unit.items.filter(
        (row) =>
          `${row.code} ${row.title}`.toLowerCase().includes(written) &&
          (!onlyDiffering.value || row.cells.some((cell) => cell.differs.length > 0)),
      ),
    }))
    .filter((unit) => unit.items.length > 0)
})
const shown = computed(() => units.value.reduce((sum, unit) => sum + unit.items.length, 0))
const facts = computed(() => {
  const answer = dates.data.value
  if (!answer) return []
  return [
    `${shown.value} items, ${answer.sections.length} sections`,
    answer.differences === 1 ? '1 difference' : `${answer.differences} differences`,
    `${answer.toCheck} to check`,
  ]
})
const fields = ['opens', 'due'] as const
const isAt = (item: number, section: number, field: string) =>
  place.value?.item === item && place.value.section === section && place.value.field === field

useScreenKeys([{ key: 'Escape', words: 'close the date, unchanged', run: () => (place.value = null) }])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="dates.problem.value && !dates.data.value" :problem="dates.problem.value" />
    <p v-else-if="!dates.data.value" class="second" role="status">Reading the dates …</p>
    <p v-else-if="dates.data.value.sections.length === 0" class="second none">
      No section follows this edition yet, so there are no dates. Roll over into a term with sections, or ask the office
      for some.
    </p>
    <template v-else>
      <p class="filter">
        <label class="field-name" for="dates-wanted">Show</label>
        <input
          id="dates-wanted"
          v-model="wanted"
          type="text"
          placeholder="part of a code or title"
          autocomplete="off"
        />
        <label class="tick"><input v-model="onlyDiffering" type="checkbox" /> only what differs</label>
        <span class="small">{{ shown }} shown</span>
      </p>
      <div class="scroll" tabindex="0" aria-label="Dates of every item in every section">
        <table>
          <thead>
            <tr>
              <th scope="col" class="item">Item</th>
              <th v-for="section in dates.data.value.sections" :key="section.id" scope="col">
                <SectionKey :letter="section.letter" :name="section.name" />
                <span class="small size">{{ section.classes }} classes</span>
                <span v-if="section.lacking" class="small accent" :title="section.toCheck.join('\n')"
                  >{{ section.lacking }} too few</span
                >
              </th>
            </tr>
          </thead>
          <tbody v-for="unit in units" :key="unit.number">
            <tr class="unit">
              <th scope="rowgroup" :colspan="dates.data.value.sections.length + 1">
                {{ unit.number }} {{ unit.title }}
              </th>
            </tr>
            <tr v-for="row in unit.items" :key="row.item">
              <th scope="row" class="item">
                <div class="named">
                  <span class="code">{{ row.code }}</span>
                  <span
                    >{{ row.title }}
                    <StateMark v-if="!row.published" state="unpublished" alone />
                    <span class="small timing">{{ row.due ? `due ${row.due}` : (row.opens ?? '') }}</span></span
                  >
                </div>
              </th>
              <td v-for="(cell, at) in row.cells" :key="at" :class="{ differs: cell.differs.length > 0 }">
                <span v-if="cell.skipped" class="small"><StateMark state="not-needed" /> dropped here</span>
                <template v-else>
                  <template v-for="field in fields" :key="field">
                    <button
                      v-if="cell[field] || field === 'opens'"
                      type="button"
                      class="date"
                      :class="{
                        own: differenceOf(cell, field),
                        at: isAt(row.item, dates.data.value.sections[at]!.id, field),
                      }"
                      :disabled="!dates.data.value.canChange"
                      :data-cell="`${row.code} ${field} ${dates.data.value.sections[at]!.name}`"
                      @click="place = { item: row.item, section: dates.data.value.sections[at]!.id, field }"
                    >
                      <span class="said-only">{{ row.code }}, {{ dates.data.value.sections[at]!.name }}: </span>
                      <span v-if="field === 'due'" class="small">due </span>
                      <span v-else class="said-only">opens </span
                      >{{ cell[field]?.words ?? (cell.unresolved ? 'does not fit' : 'at once') }}
                      <span v-if="differenceOf(cell, field)" class="said-only">, differs from the course</span>
                    </button>
                  </template>
                  <span v-if="cell.held" class="small"><StateMark state="kept-back" /> kept back</span>
                </template>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="shown === 0" class="second none">Nothing of that name. Show everything by clearing the field.</p>
      </div>
      <DatePanel
        v-if="place && dates.data.value.canChange"
        :key="`${place.item} ${place.section} ${place.field}`"
        :edition="edition"
        :answer="dates.data.value"
        :place="place"
        @close="place = null"
      />
    </template>
  </main>
  <TitleBlock v-if="dates.data.value" :edition="edition" :facts="facts" :can-change="dates.data.value.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr auto;
  min-height: 0;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
  padding-bottom: var(--space-4);
}
.filter input[type='text'] {
  width: 260px;
}
.tick input {
  accent-color: var(--ink);
  margin: 0 var(--space-2) 0 0;
}
.none {
  padding: var(--space-7) 0;
}
.scroll {
  position: relative;
  overflow: auto;
  min-height: 0;
  border-top: var(--stroke-hair) solid var(--ink);
}
table {
  border-collapse: separate;
  border-spacing: 0;
  width: 100%;
}
th,
td {
  text-align: left;
  vertical-align: top;
  font-weight: 400;
  padding: var(--space-3) var(--space-5) var(--space-3) var(--space-4);
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
thead th {
  position: sticky;
  top: 0;
  z-index: 1;
  background: var(--paper);
  border-bottom: var(--stroke-hair) solid var(--ink);
  white-space: nowrap;
}
.size {
  padding: 0 var(--space-3);
}
th.item {
  width: 34%;
  padding-left: 0;
}
.named {
  display: flex;
  gap: var(--space-5);
}
.unit th {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  padding: var(--space-7) 0 var(--space-3);
  border-color: var(--hair);
}
.code {
  flex: none;
  width: 40px;
  color: var(--ink-2);
}
.timing {
  display: block;
}
.differs {
  background: var(--wash);
}
.date {
  display: block;
  padding: var(--space-1) 0;
  white-space: nowrap;
}
.date:hover:not(:disabled) {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.date:disabled {
  cursor: default;
}
.date.own {
  font-weight: 650;
}
.date.at {
  text-decoration: underline;
  text-decoration-color: var(--accent);
  text-decoration-thickness: var(--stroke-strong);
  text-underline-offset: 3px;
}
</style>
