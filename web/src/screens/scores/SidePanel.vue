<script setup lang="ts">
import type { Problem } from '../../foundation/api/client'
import ProblemNote from '../../parts/ProblemNote.vue'

/** What is looked at beside the table of scores: its title, what it says, and how it is closed. */
defineProps<{
  label: string
  /** Undefined: it is still being read. */
  title: string | undefined
  /** What stands at the right of the title. */
  sum?: string
  waiting: string
  problem: Problem | null
  again: () => unknown
}>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <aside class="panel" tabindex="0" :aria-label="label" @keydown.esc="emit('close')">
    <ProblemNote v-if="problem && title === undefined" :problem="problem" :again="again" />
    <p v-else-if="title === undefined" class="second" role="status">{{ waiting }}</p>
    <template v-else>
      <p class="head">
        <b>{{ title }}</b>
        <span v-if="sum" class="sum">{{ sum }}</span>
        <button type="button" class="word-button small" @click="emit('close')">close</button>
      </p>
      <slot />
    </template>
  </aside>
</template>

<style scoped>
.panel {
  position: relative;
  overflow: auto;
  min-height: 0;
  padding: var(--space-6) var(--space-6) var(--space-9);
  background: var(--sheet);
  border-left: var(--stroke-hair) solid var(--accent);
}
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding-bottom: var(--space-3);
}
.head b {
  flex: 1;
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.sum {
  font-weight: 600;
}
</style>
