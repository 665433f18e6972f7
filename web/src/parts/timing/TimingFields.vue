<script setup lang="ts">
import { computed } from 'vue'
import { useLevels } from '../../foundation/levels'
import { type TimingChoice, type TimingKind, timingWords } from './timing'

/** Timing in words, its parts chosen: in teaching time, so that every section has a date of its own, or on a date. */
const props = defineProps<{ name: string; other?: string | null }>()
const levels = useLevels()
const choice = defineModel<TimingChoice>({ required: true })

const all = computed(() => timingWords(levels.value.lesson.one))
const kinds = computed(() =>
  (Object.keys(all.value) as TimingKind[]).filter((kind) => kind !== 'other' || choice.value.kind === kind),
)
const words = (kind: TimingKind) => (kind === 'other' ? (props.other ?? all.value.other) : all.value[kind])
</script>

<template>
  <input
    v-if="choice.kind === 'classes-after' || choice.kind === 'days-after'"
    v-model.number="choice.count"
    aria-label="How many"
    type="number"
    min="1"
    max="200"
  />
  <select v-model="choice.kind" :aria-label="name">
    <option v-for="kind in kinds" :key="kind" :value="kind">{{ words(kind) }}</option>
  </select>
  <input v-if="choice.kind === 'on-date'" v-model="choice.date" aria-label="Date" type="date" />
  <input
    v-if="choice.kind === 'on-date' || choice.kind === 'days-after'"
    v-model="choice.time"
    aria-label="Time"
    type="time"
  />
</template>
