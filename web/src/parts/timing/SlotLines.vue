<script setup lang="ts">
import ChoiceField from '../fields/ChoiceField.vue'
import DateField from '../fields/DateField.vue'
import NumberField from '../fields/NumberField.vue'
import TickField from '../fields/TickField.vue'
import TimeField from '../fields/TimeField.vue'
import type { DayChoice } from './periodGrid'
import type { SlotDraft } from './slots'

/** The times at which a section meets, a line each, with all that can be said of one. */
defineProps<{
  days: readonly DayChoice[]
  periods: readonly { name: string; start: string; end: string }[]
  /** Which of them have a line. */
  shown: (draft: SlotDraft) => boolean
}>()
const drafts = defineModel<SlotDraft[]>({ required: true })
</script>

<template>
  <div class="slots">
    <template v-for="(slot, n) in drafts" :key="n">
      <p v-if="shown(slot)" class="slot">
        <ChoiceField
          v-model="slot.day"
          :label="`Day of time ${n + 1}`"
          :choices="days.map((day) => ({ value: day.label, title: day.words }))"
        />
        <template v-if="slot.own">
          <TimeField v-model="slot.start" :label="`Start of time ${n + 1}`" /> to
          <TimeField v-model="slot.end" :label="`End of time ${n + 1}`" />
          <button v-if="periods.length" type="button" class="word-button small" @click="slot.own = false">
            in periods
          </button>
        </template>
        <template v-else>
          <TickField
            v-for="period in periods"
            :key="period.name"
            v-model="slot.periods"
            :value="period.name"
            :label="period.name"
            :title="`${period.start}–${period.end}`"
          />
          <button type="button" class="word-button small" @click="slot.own = true">own times</button>
        </template>
        <span>counts</span>
        <NumberField
          :model-value="slot.counts || null"
          :label="`Counts, time ${n + 1}`"
          :min="1"
          :max="10"
          @update:model-value="slot.counts = $event ?? 0"
        />
        <span>from</span>
        <DateField v-model="slot.from" :label="`From, time ${n + 1}`" placeholder="the start" />
        <span>until</span>
        <DateField v-model="slot.until" :label="`Until, time ${n + 1}`" placeholder="the end" />
        <button type="button" class="word-button" @click="drafts.splice(n, 1)">
          take out<span class="said-only">: time {{ n + 1 }}</span>
        </button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.slots {
  max-height: 220px;
  overflow: auto;
}
.slot {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
  padding: var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
</style>
