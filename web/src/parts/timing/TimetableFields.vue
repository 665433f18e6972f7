<script setup lang="ts">
import { ref } from 'vue'
import PeriodGrid from './PeriodGrid.vue'
import SlotLines from './SlotLines.vue'
import { type DayChoice, isPlain } from './periodGrid'
import { type SlotDraft, another } from './slots'

/** When a section meets: periods pressed in a grid, and below it the times that are not as plain. */
const props = defineProps<{
  days: readonly DayChoice[]
  periods: readonly { name: string; start: string; end: string }[]
}>()
const drafts = defineModel<SlotDraft[]>({ required: true })

/** Every time has its line, not only those that the grid does not show. */
const inLines = ref(false)
const add = () => drafts.value.push({ ...another(props.days, props.periods), own: true })
</script>

<template>
  <div class="timetable">
    <PeriodGrid v-if="periods.length" v-model="drafts" :days="days" :periods="periods" />
    <div class="lines">
      <p class="line">
        <button type="button" class="word-button" @click="add">add a time of its own</button>
        <button v-if="periods.length && drafts.length" type="button" class="word-button" @click="inLines = !inLines">
          {{ inLines ? 'only what the grid leaves out' : 'every time in detail' }}
        </button>
      </p>
      <SlotLines v-model="drafts" :days="days" :periods="periods" :shown="(one) => inLines || !isPlain(one)" />
      <p v-if="drafts.length === 0" class="second">
        {{ periods.length ? 'It does not meet yet: press its periods.' : 'It does not meet yet: add a time.' }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.timetable {
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: var(--space-5) var(--space-8);
}
.lines {
  flex: 1 1 380px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
}
</style>
