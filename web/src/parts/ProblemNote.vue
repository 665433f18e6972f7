<script setup lang="ts">
import type { Problem } from '../foundation/api/client'

/** What happened, what was kept, what to do; and what can be pressed for it. */
defineProps<{ problem: Problem }>()
</script>

<template>
  <div class="problem" role="alert">
    <p class="title">{{ problem.title }}</p>
    <p class="small">{{ problem.detail }}</p>
    <div v-if="$slots.default" class="ways"><slot /></div>
  </div>
</template>

<style scoped>
.problem {
  border-top: var(--stroke-strong) solid var(--accent);
  padding: var(--space-4) 0;
}
.title {
  font-weight: 600;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-5);
  padding-top: var(--space-4);
}
</style>
