<script setup lang="ts">
import { plainLevels } from '../../../foundation/levels'
import { computed } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import type { Level } from './useNewCourse'

/** The outline that a scheme of work makes: what was understood of each line, and what is asked of it. */
const props = defineProps<{ answer: Schemas['MakeCourseAnswer'] }>()
const emit = defineEmits<{ say: [line: number, level: Level] }>()

const choices: readonly { level: Level; words: string }[] = [
  { level: 'unit', words: 'unit' },
  { level: 'lesson', words: 'lesson' },
  { level: 'item', words: 'item' },
  { level: 'left-out', words: 'leave out' },
]
const rows = computed(() => {
  let unit = 0
  return props.answer.lines.map((line) => ({
    ...line,
    number: line.level === 'unit' ? `${++unit}` : (line.code ?? ''),
  }))
})
</script>

<template>
  <div>
    <p class="small">What is understood: {{ answer.sentence }}</p>
    <ol>
      <li v-for="(row, n) in rows" :key="n" :class="row.level">
        <span class="number">{{ row.number }}</span>
        <span class="what">
          <b class="name">{{ row.title }}</b>
          <span class="small">{{ row.words }}</span>
          <span v-if="row.wrong" class="small accent">{{ row.wrong }}</span>
          <span v-if="row.asks" class="small accent asks" role="group" :aria-label="`What is “${row.title}”?`">
            is this {{ row.level === 'left-out' ? 'part of it' : plainLevels[row.level].a }}?
            <button
              v-for="choice in choices"
              :key="choice.level"
              type="button"
              class="word-button small"
              :class="{ chosen: choice.level === row.level }"
              :aria-pressed="choice.level === row.level"
              @click="emit('say', row.line, choice.level)"
            >
              {{ choice.words }}
            </button>
          </span>
        </span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  padding-top: var(--space-3);
}
li {
  display: grid;
  grid-template-columns: 46px 1fr;
  gap: var(--space-3);
  align-items: baseline;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
  padding: var(--space-2) 0;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--space-5);
}
.number {
  color: var(--ink-2);
}
.name {
  font-weight: 400;
}
.unit .name {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.lesson .what,
.item .what,
.left-out .what {
  padding-left: var(--space-7);
}
.item .number {
  padding-left: var(--space-3);
}
.lesson .name {
  font-weight: 600;
}
.left-out .name {
  text-decoration: line-through;
}
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-4);
}
.chosen {
  font-weight: 650;
}
</style>
