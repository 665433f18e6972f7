<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'

/** How a section did in an item: the middle half as a box on a line from 0 to 100 %, the median as a stroke. */
const props = defineProps<{ spread: Schemas['ScoreSpread'] | null; width: number }>()

const at = (percent: number) => (Math.min(100, Math.max(0, percent)) / 100) * props.width
const box = computed(() => props.spread && { x: at(props.spread.low), end: at(props.spread.high) })
const words = computed(
  () =>
    props.spread &&
    `${props.spread.students} scored, median ${props.spread.median} %, middle half ${props.spread.low} to ${props.spread.high} %`,
)
</script>

<template>
  <svg :width="width" height="16" role="img" :aria-label="words ?? 'no scores yet'">
    <title>{{ words ?? 'no scores yet' }}</title>
    <line x1="0" :x2="width" y1="8" y2="8" class="line" />
    <template v-if="spread && box">
      <rect :x="box.x" y="4" :width="Math.max(2, box.end - box.x)" height="8" class="half" />
      <line :x1="at(spread.median)" :x2="at(spread.median)" y1="2" y2="14" class="median" />
    </template>
  </svg>
</template>

<style scoped>
.line {
  stroke: var(--hair);
}
.half {
  fill: var(--paper);
  stroke: var(--ink-2);
}
.median {
  stroke: var(--accent);
  stroke-width: 2;
}
</style>
