<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { percentOfPoints, pointsOfPercent } from '../../../parts/condition/draft'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import BranchEnd from './BranchEnd.vue'
import ScoreBar from './ScoreBar.vue'
import { type Branch, branchOf, gateOfBranch } from './branches'
import { useBranches } from './useBranches'

/** What a score opens: each range of scores something else, all set in one act, with what does not fit shown on a bar. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const branches = ref<Branch[] | null>(null)
const outOf = computed(() => (props.item.marked?.as === 'points' ? props.item.marked.outOf : null))
const inPoints = ref(false)
/** What each place is to wait for, where that is not so already. */
const wanted = computed(() => {
  if (!branches.value) return null
  const all = branches.value.filter((one) => one.item)
  const gates = all.map((one) => gateOfBranch(one, props.item.lineage))
  if (gates.includes(null) || new Set(all.map((one) => one.item)).size < all.length) return null
  const changed = new Map<string, unknown>()
  all.forEach((one, n) => {
    const before = stored.value.find((known) => known.item === one.item)
    if (!before || before.from !== one.from || before.below !== one.below) changed.set(one.item, gates[n])
  })
  for (const before of stored.value) if (!all.some((one) => one.item === before.item)) changed.set(before.item, null)
  return changed
})
const { conditions, items, choices, problem, ready, reach, send } = useBranches(
  toRef(props, 'edition'),
  props.item.lineage,
  wanted,
)
const stored = computed<Branch[]>(() =>
  (conditions.data.value?.places ?? []).flatMap((place) => branchOf(place, props.item.lineage) ?? []),
)
watch(
  () => conditions.data.value,
  (known) => {
    if (!known || branches.value) return
    branches.value = stored.value.length
      ? stored.value.map((one) => ({ ...one }))
      : [
          { item: '', from: 70, below: null },
          { item: '', from: null, below: 70 },
        ]
  },
  { immediate: true },
)
const shown = (percent: number | null) =>
  percent === null || !inPoints.value || !outOf.value ? percent : pointsOfPercent(percent, outOf.value)
function write(at: number, end: 'from' | 'below', value: number | null): void {
  const percent = value === null || !inPoints.value || !outOf.value ? value : percentOfPoints(value, outOf.value)
  branches.value = branches.value!.with(at, { ...branches.value![at]!, [end]: percent })
}
const waits = (lineage: string) => items.value.find((one) => one.lineage === lineage)?.condition
const replaced = computed(() =>
  (branches.value ?? []).filter(
    (one) => one.item && waits(one.item) && !stored.value.some((known) => known.item === one.item),
  ),
)
</script>

<template>
  <form class="editor" novalidate @submit.prevent="send(() => emit('close'))" @keydown.esc.stop.prevent="emit('close')">
    <p v-if="!branches" class="small" role="status">Reading …</p>
    <template v-else>
      <p v-for="(branch, at) in branches" :key="at" class="line">
        <span>Its score opens</span>
        <ChoiceField
          :model-value="branch.item"
          :label="`What opens, ${at + 1}`"
          :placeholder="`choose ${levels.item.a}`"
          :choices="choices"
          @update:model-value="branches = branches.with(at, { ...branch, item: $event })"
        />
        <span>from</span>
        <NumberField
          :key="`from ${inPoints}`"
          :model-value="shown(branch.from)"
          :label="`From, ${at + 1}`"
          :min="0"
          :max="inPoints && outOf ? outOf : 100"
          :decimals="2"
          optional
          @update:model-value="write(at, 'from', $event)"
        />
        <span>to below</span>
        <NumberField
          :key="`below ${inPoints}`"
          :model-value="shown(branch.below)"
          :label="`To below, ${at + 1}`"
          :min="0"
          :max="inPoints && outOf ? outOf : 100"
          :decimals="2"
          optional
          @update:model-value="write(at, 'below', $event)"
        />
        <ChoiceField
          v-if="outOf"
          v-model="inPoints"
          :label="`Counted in, ${at + 1}`"
          :choices="[
            { value: false, title: 'per cent' },
            { value: true, title: `of ${outOf} points` },
          ]"
        />
        <span v-else>per cent</span>
        <button type="button" class="word-button small" @click="branches = branches.toSpliced(at, 1)">take out</button>
      </p>
      <p>
        <button
          type="button"
          class="word-button"
          @click="branches = [...branches, { item: '', from: null, below: null }]"
        >
          and something else
        </button>
      </p>
      <ScoreBar v-if="branches.length" :branches="branches" />
      <p class="small second">
        Leave either end empty if it has none. What opens below a score is not shown to the other students.
      </p>
      <p v-for="one in replaced" :key="one.item" class="small second">In place of: {{ waits(one.item) }}</p>
    </template>
    <BranchEnd :problem="problem" :ready="ready" :reach="reach" @close="emit('close')" />
  </form>
</template>
