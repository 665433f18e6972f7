<script setup lang="ts">
import { computed } from 'vue'
import type { Problem } from '../foundation/api/client'

/** What happened, what was kept, what to do; and what can be pressed for it. */
const props = defineProps<{
  problem: Problem
  /** Reads it once more: offered where that may help. */
  again?: () => unknown
}>()
const mayHelp = computed(() => props.again && (props.problem.status === 0 || props.problem.status >= 500))
</script>

<template>
  <div class="problem" role="alert">
    <p class="title">{{ problem.title }}</p>
    <p class="small">{{ problem.detail }}</p>
    <div v-if="$slots.default || mayHelp" class="ways">
      <v-btn v-if="mayHelp" @click="again?.()">Try again</v-btn>
      <slot />
    </div>
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
