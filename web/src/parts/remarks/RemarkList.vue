<script setup lang="ts">
import { type Remark, type Remarked, quoteOf } from './remarks'

/** Remarks where their places cannot be shown: each after the words it is about. */
defineProps<{ piece: Remarked; remarks: Remark[] }>()
</script>

<template>
  <ul v-if="remarks.length" aria-label="Remarks">
    <li v-for="(one, n) in remarks" :key="n">
      <span class="quote">{{ quoteOf(piece, one.at) }}:</span> {{ one.text }}
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--space-2);
  list-style: none;
  padding: 0;
}
li {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.quote {
  color: var(--ink-2);
}
</style>
