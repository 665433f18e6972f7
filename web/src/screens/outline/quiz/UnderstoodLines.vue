<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../foundation/api/client'

/** What is understood of a quiz in plain text, line by line: what is not understood says what to do. */
const props = defineProps<{ lines: Schemas['QuizLine'][] }>()

const shown = computed(() =>
  props.lines
    .map((line, at) => ({ ...line, at: at + 1 }))
    .filter((line) => line.text.trim() !== '' && line.words !== ''),
)
</script>

<template>
  <ul class="understood" tabindex="0" aria-label="What is understood, line by line">
    <li v-for="line in shown" :key="line.at" :class="{ fault: line.isFault, head: line.words.startsWith('Question') }">
      <span class="at small second">{{ line.at }}</span>
      <span class="said">{{ line.text }}</span>
      <span class="small" :class="line.isFault ? 'accent' : 'second'">{{ line.words }}</span>
    </li>
    <li v-if="shown.length === 0" class="second">Nothing is written yet.</li>
  </ul>
</template>

<style scoped>
.understood {
  list-style: none;
  max-height: 440px;
  overflow: auto;
  border-left: var(--stroke-hair) solid var(--hair);
  padding-left: var(--space-5);
}
.understood li {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-4);
  padding: var(--space-1) 0;
}
.head {
  margin-top: var(--space-3);
  font-weight: 600;
}
.said {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fault {
  background: var(--wash);
}
</style>
