<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import ChoiceField from '../fields/ChoiceField.vue'
import NumberField from '../fields/NumberField.vue'
import { type Leaf, percentOfPoints, pointsOfPercent } from './draft'

/** Between which scores: in percent, in points, or by the levels of a short scale; kept in percent. */
const props = defineProps<{ item: Schemas['AskableItem']; place: string }>()
const leaf = defineModel<Leaf>({ required: true })

type Unit = 'percent' | 'points' | 'level'
const ends = computed(() =>
  leaf.value.asked === 'score-min'
    ? (['min'] as const)
    : leaf.value.asked === 'score-below'
      ? (['below'] as const)
      : (['min', 'below'] as const),
)
const levels = computed(() => props.item.levels.map(({ name, percent }) => ({ value: percent, title: `“${name}”` })))
const isLevel = () => ends.value.every((end) => levels.value.some((one) => one.value === leaf.value[end]))
const unit = ref<Unit>(levels.value.length > 0 && isLevel() ? 'level' : 'percent')
const units = computed(() => [
  { value: 'percent' as Unit, title: 'per cent' },
  ...(props.item.outOf ? [{ value: 'points' as Unit, title: `of ${props.item.outOf} points` }] : []),
  ...(levels.value.length ? [{ value: 'level' as Unit, title: 'by level' }] : []),
])
const names = { min: 'At least', below: 'Below' }
const shown = (end: 'min' | 'below') => {
  const percent = leaf.value[end]
  return percent === null || unit.value !== 'points' ? percent : pointsOfPercent(percent, props.item.outOf!)
}
function write(end: 'min' | 'below', value: number | null): void {
  const percent = value === null || unit.value !== 'points' ? value : percentOfPoints(value, props.item.outOf!)
  leaf.value = { ...leaf.value, [end]: percent }
}
/** A level that is reached, or not reached, where scores are given by levels. */
function turn(to: Unit): void {
  unit.value = to
  if (to !== 'level' || isLevel()) return
  const [first, last] = [levels.value[0]!.value, levels.value.at(-1)!.value]
  leaf.value = { ...leaf.value, min: leaf.value.asked === 'score-between' ? first : last, below: last }
}
</script>

<template>
  <template v-for="end in ends" :key="end">
    <span v-if="end === 'below' && ends.length > 1">to below</span>
    <ChoiceField
      v-if="unit === 'level'"
      :model-value="leaf[end]"
      :label="`${names[end]}, ${place}`"
      placeholder="choose a level"
      :choices="levels"
      @update:model-value="write(end, $event)"
    />
    <NumberField
      v-else
      :key="unit"
      :model-value="shown(end)"
      :label="`${names[end]}, ${place}`"
      :min="0"
      :max="unit === 'points' ? item.outOf! : 100"
      :decimals="2"
      @update:model-value="write(end, $event)"
    />
  </template>
  <ChoiceField
    v-if="units.length > 1"
    :model-value="unit"
    :label="`Counted in, ${place}`"
    :choices="units"
    @update:model-value="turn"
  />
  <span v-else>per cent</span>
  <ChoiceField
    :model-value="leaf.latest"
    :label="`Which attempt, ${place}`"
    :choices="[
      { value: null, title: 'in the best attempt' },
      { value: true, title: 'in the latest attempt' },
    ]"
    @update:model-value="leaf = { ...leaf, latest: $event }"
  />
</template>
