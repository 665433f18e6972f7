<script setup lang="ts">
import { computed } from 'vue'
import { useLevels } from '../../foundation/levels'
import { type TimingChoice, type TimingKind, timingWords } from './timing'
import ChoiceField from '../fields/ChoiceField.vue'
import DateField from '../fields/DateField.vue'
import NumberField from '../fields/NumberField.vue'
import TimeField from '../fields/TimeField.vue'

/** Timing in words, its parts chosen: in teaching time, so that every section has a date of its own, or on a date. */
const props = defineProps<{
  name: string
  other?: string | null
  /** There must be a time. */
  needed?: boolean
}>()
const levels = useLevels()
const choice = defineModel<TimingChoice>({ required: true })

const all = computed(() => timingWords(levels.value.lesson.one))
const kinds = computed(() =>
  (Object.keys(all.value) as TimingKind[]).filter(
    (kind) => (kind !== 'other' || choice.value.kind === kind) && (kind !== 'none' || !props.needed),
  ),
)
const words = (kind: TimingKind) => (kind === 'other' ? (props.other ?? all.value.other) : all.value[kind])
</script>

<template>
  <NumberField
    v-if="choice.kind === 'classes-after' || choice.kind === 'days-after'"
    label="How many"
    :model-value="choice.count || null"
    :min="1"
    :max="200"
    @update:model-value="choice.count = $event ?? 0"
  />
  <ChoiceField
    v-model="choice.kind"
    :label="name"
    :choices="kinds.map((kind) => ({ value: kind, title: words(kind) }))"
  />
  <DateField v-if="choice.kind === 'on-date'" v-model="choice.date" label="Date" />
  <TimeField v-if="choice.kind === 'on-date' || choice.kind === 'days-after'" v-model="choice.time" label="Time" />
</template>
