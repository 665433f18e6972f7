<script setup lang="ts">
import { computed } from 'vue'
import { sectionLines } from '../theme'

/** A short piece of a section's own line, with its letter. */
const props = defineProps<{ letter: string; name: string; short?: boolean }>()

const fallback = { ink: 'section-e', dashes: '2 2' }
const line = computed(() => sectionLines[props.letter] ?? fallback)
const length = computed(() => (props.short ? 18 : 28))
</script>

<template>
  <span class="key" :style="{ color: `var(--${line.ink})` }" :title="short ? name : undefined">
    <svg :width="length" height="6" aria-hidden="true">
      <line
        x1="0"
        :x2="length"
        y1="3"
        y2="3"
        stroke="currentColor"
        stroke-width="2.4"
        :stroke-dasharray="line.dashes"
      />
    </svg>
    <b>{{ letter }}</b>
    <span v-if="short" class="said-only">{{ name }}</span>
    <span v-else class="name">{{ name }}</span>
  </span>
</template>

<style scoped>
.key {
  display: inline-flex;
  align-items: center;
  gap: var(--space-2);
  white-space: nowrap;
}
.key svg {
  flex: none;
}
.key b {
  font-size: var(--size-small);
  font-weight: 700;
}
.name {
  color: var(--ink);
}
</style>
