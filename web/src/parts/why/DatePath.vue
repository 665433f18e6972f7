<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'

/** Where a date comes from, step by step. */
defineProps<{ date: Schemas['WhyDate'] }>()
</script>

<template>
  <div class="path">
    <p>
      <b>{{ date.what }}</b>
      {{ date.at ? date.at.words : 'at a moment that does not come'
      }}<span class="small second">, {{ date.given }}</span>
    </p>
    <ol v-if="date.steps.length" class="small">
      <li v-for="(step, at) in date.steps" :key="at">
        <span>{{ step.words }}</span>
        <span class="moment">{{ step.moment?.words ?? '' }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.path ol {
  list-style: none;
  padding: var(--space-2) 0 var(--space-3);
}
.path li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-5);
  padding-block: var(--space-1);
}
.moment {
  flex: none;
  color: var(--ink-2);
  font-variant-numeric: tabular-nums;
}
</style>
