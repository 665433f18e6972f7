<script setup lang="ts">
import { computed } from 'vue'
import { type Count, allOf } from './graph'

/** Who is before, at and past a place, as lengths; those who missed it end it, hatched. */
const props = defineProps<{ count: Count }>()
const parts = computed(() => {
  const all = allOf(props.count)
  return (['before', 'at', 'past', 'missed'] as const)
    .filter((stand) => props.count[stand] > 0)
    .map((stand) => ({ stand, share: `${(props.count[stand] / all) * 100}%` }))
})
</script>

<template>
  <span class="bar" aria-hidden="true">
    <span v-for="{ stand, share } in parts" :key="stand" :class="stand" :style="{ width: share }"></span>
  </span>
</template>

<style scoped>
.bar {
  display: flex;
  flex: 1;
  gap: 1px;
  height: 7px;
}
.bar > span {
  min-width: 2px;
}
.before {
  background: var(--hair);
}
.at {
  background: var(--accent);
}
.past {
  background: var(--ink);
}
.missed {
  background: repeating-linear-gradient(135deg, var(--ink-2) 0 1px, transparent 1px 4px);
}
</style>
