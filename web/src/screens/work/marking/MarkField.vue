<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import NumberField from '../../../parts/fields/NumberField.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'

/** The mark of a piece, as its item is marked: points, per cent, or a level. It may be left out. */
const props = defineProps<{ marked: Schemas['MarkedForm'] }>()
const mark = defineModel<Schemas['MarkGiven'] | null>({ required: true })

const value = ref(mark.value?.value ?? null)
const level = ref(mark.value?.level ?? null)
const isScale = computed(() => props.marked.as === 'scale')
watch([value, level], () => {
  const given = isScale.value ? level.value : value.value
  mark.value = given === null ? null : { value: value.value, level: level.value }
})
const isMore = computed(() => {
  const most = props.marked.as === 'percent' ? 100 : props.marked.outOf
  return !isScale.value && value.value !== null && value.value > most
})
</script>

<template>
  <OneOfField
    v-if="isScale"
    v-model="level"
    label="Mark"
    :choices="[...marked.levels.map(({ name }) => ({ value: name, title: name })), { value: null, title: 'no mark' }]"
  />
  <p v-else class="line">
    <span>Mark</span>
    <NumberField
      v-model="value"
      :label="marked.as === 'percent' ? 'Mark in per cent' : `Mark out of ${marked.outOf}`"
      :max="10000"
      :decimals="2"
      optional
    />
    <span>{{ marked.as === 'percent' ? '%' : `of ${marked.outOf}` }}</span>
    <span v-if="isMore" class="small" role="status">That is more than full marks. It counts in full.</span>
  </p>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
</style>
