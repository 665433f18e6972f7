<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { capital, useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'

/** The same facts as the lines, in rows: every lesson, the last on top as on the chart. */
const props = defineProps<{ pace: Schemas['PaceAnswer']; sections: Schemas['PaceSection'][]; withLast: boolean }>()
const emit = defineEmits<{ take: [at: { section: number; place: number }] }>()
const levels = useLevels()

const cellsOf = (place: number) =>
  props.sections.map((section) => ({
    section: section.id,
    run: section.lessons.find((run) => run.place === place),
  }))
const states: Record<string, string> = { taught: 'taught', begun: 'not finished', ahead: '' }
</script>

<template>
  <div class="scroll" tabindex="0" :aria-label="`Every ${levels.lesson.one} in every section`">
    <table>
      <thead>
        <tr>
          <th scope="col">{{ capital(levels.lesson.one) }}</th>
          <th v-for="section in sections" :key="section.id" scope="col">
            <SectionKey :letter="section.letter" :name="section.name" />
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(lesson, place) in pace.lessons" :key="lesson.id">
          <th scope="row">
            <span class="code">{{ lesson.code }}</span> {{ lesson.title }}
          </th>
          <td v-for="cell in cellsOf(place)" :key="cell.section">
            <span v-if="!cell.run || cell.run.skipped" class="small">dropped here</span>
            <button
              v-else-if="cell.run.starts"
              type="button"
              class="run"
              @click="emit('take', { section: cell.section, place })"
            >
              {{ cell.run.starts.words }}<span class="small">, {{ cell.run.classes }}</span
              ><span v-if="states[cell.run.state]" class="small">, {{ states[cell.run.state] }}</span
              ><span v-if="withLast && cell.run.last && cell.run.last !== cell.run.classes" class="small"
                >, last time {{ cell.run.last }}</span
              >
            </button>
            <span v-else class="accent small">does not fit</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  padding-bottom: var(--space-9);
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
  padding: var(--space-3) var(--space-5) var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
thead th {
  position: sticky;
  top: 0;
  background: var(--paper);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.code {
  display: inline-block;
  width: 40px;
  color: var(--ink-2);
}
.run:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
