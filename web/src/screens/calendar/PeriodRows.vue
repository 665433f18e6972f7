<script setup lang="ts">
import type { PeriodDraft } from './yearSheet'
import TimeField from '../../parts/fields/TimeField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** The periods of a day, a line each. */
const periods = defineModel<PeriodDraft[]>({ required: true })
defineProps<{ of: string }>()

const another = (): PeriodDraft => ({
  name: `P${periods.value.length + 1}`,
  start: periods.value.at(-1)?.end ?? '08:00',
  end: '',
})
</script>

<template>
  <div class="periods">
    <p v-for="(period, n) in periods" :key="n" class="period">
      <WordField v-model="period.name" class="name" :label="`Name of period ${n + 1} ${of}`" :maxlength="20" />
      <TimeField v-model="period.start" :label="`Start of period ${n + 1} ${of}`" /> –
      <TimeField v-model="period.end" :label="`End of period ${n + 1} ${of}`" />
      <button type="button" class="word-button small" @click="periods.splice(n, 1)">
        take out<span class="said-only">: period {{ n + 1 }}</span>
      </button>
    </p>
    <button type="button" class="word-button" @click="periods.push(another())">add a period</button>
  </div>
</template>

<style scoped>
.periods {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-7);
}
.period {
  display: flex;
  align-items: baseline;
  gap: var(--space-2);
}
.name {
  width: 48px;
}
</style>
