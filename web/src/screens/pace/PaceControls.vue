<script setup lang="ts">
import type { Zoom } from './usePaceScreen'

/** What the lesson looked at is, and how much of the lines is shown. */
defineProps<{ readout: string; last: string | null }>()
const zoom = defineModel<Zoom>('zoom', { required: true })
const asTable = defineModel<boolean>('asTable', { required: true })
const withLast = defineModel<boolean>('withLast', { required: true })
const zooms: Zoom[] = ['term', 'month', 'week']
</script>

<template>
  <p class="controls">
    <span class="readout" role="status">{{ readout }}</span>
    <button
      v-if="last"
      type="button"
      class="word-button small"
      :aria-pressed="withLast"
      :title="`Where each section would be, class by class, if it went as in ${last}`"
      @click="withLast = !withLast"
    >
      {{ withLast ? 'without last time' : 'with last time' }}
    </button>
    <span v-if="!asTable" class="zooms" role="group" aria-label="How much of the term">
      <button v-for="one in zooms" :key="one" type="button" :aria-pressed="zoom === one" @click="zoom = one">
        {{ one }}
      </button>
    </span>
    <button type="button" class="word-button" :aria-pressed="asTable" @click="asTable = !asTable">
      {{ asTable ? 'as lines' : 'as a table' }}
    </button>
  </p>
</template>

<style scoped>
.controls {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
  padding: var(--space-5) 0 var(--space-4);
}
.readout {
  flex: 1;
  color: var(--ink-2);
}
.zooms {
  display: inline-flex;
  gap: var(--space-5);
}
.zooms button {
  color: var(--ink-2);
}
.zooms button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  border-bottom: var(--stroke-strong) solid var(--ink);
}
</style>
