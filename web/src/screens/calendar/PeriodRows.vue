<script setup lang="ts">
import type { PeriodDraft } from './yearSheet'

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
      <input v-model="period.name" type="text" class="name" :aria-label="`Name of period ${n + 1} ${of}`" />
      <input v-model="period.start" type="time" :aria-label="`Start of period ${n + 1} ${of}`" /> –
      <input v-model="period.end" type="time" :aria-label="`End of period ${n + 1} ${of}`" />
      <button type="button" class="word-button small" @click="periods.splice(n, 1)">
        out<span class="said-only">: period {{ n + 1 }}</span>
      </button>
    </p>
    <button type="button" class="word-button" @click="periods.push(another())">one more period</button>
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
