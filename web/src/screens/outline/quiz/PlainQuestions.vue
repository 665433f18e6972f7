<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'
import UnderstoodLines from './UnderstoodLines.vue'

/** The questions of a quiz as plain text, and beside it what is understood of each line. */
defineProps<{ lines: Schemas['QuizLine'][] }>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <p class="small second">
    Leave an empty line between questions. Under each, + marks a right answer and - a wrong one; or write true, false,
    “number: 12 ± 1 km”, “text: cirrus”, 1. 2. 3. for an order, or “left = right” for pairs, or “read” for a text that
    you read yourself. [Brackets] make a gap in what is asked. “page” by itself begins a new page, and “4 of the next 9”
    draws that many of the questions below for each attempt.
  </p>
  <div class="halves">
    <v-textarea
      v-model="text"
      class="typed"
      rows="18"
      no-resize
      maxlength="200000"
      aria-label="Questions as plain text"
      spellcheck="false"
    />
    <UnderstoodLines :lines="lines" />
  </div>
</template>

<style scoped>
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-6);
}
.typed :deep(textarea) {
  font-family: var(--face-figures, ui-monospace, monospace);
}
</style>
