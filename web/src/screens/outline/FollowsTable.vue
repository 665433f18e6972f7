<script setup lang="ts">
import SectionKey from '../../look/marks/SectionKey.vue'

/** In each section, a row each. */
defineProps<{
  heads: string[]
  rows: { id?: number; letter: string; name: string; cells: string[]; differs: boolean }[]
  /** Whose dates are explained; undefined: that cannot be asked here. */
  why?: number | null
}>()
const emit = defineEmits<{ why: [section: number] }>()
</script>

<template>
  <table>
    <caption class="said-only">
      In each section
    </caption>
    <thead>
      <tr>
        <th scope="col" class="small">Section</th>
        <th v-for="head in heads" :key="head" scope="col" class="small">{{ head }}</th>
        <td v-if="why !== undefined"></td>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.letter" :class="{ differs: row.differs }">
        <th scope="row"><SectionKey :letter="row.letter" :name="row.name" /></th>
        <td v-for="(cell, n) in row.cells" :key="n">
          {{ cell }}<span v-if="row.differs && n === row.cells.length - 1" class="small"> differs from the course</span>
        </td>
        <td v-if="why !== undefined && row.id !== undefined">
          <button
            type="button"
            class="word-button small"
            :aria-label="`why these dates in ${row.name}`"
            :aria-expanded="why === row.id"
            @click="emit('why', row.id)"
          >
            why
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  border-collapse: collapse;
  justify-self: start;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: var(--space-1) var(--space-8) var(--space-1) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.differs td {
  background: var(--wash);
}
</style>
