<script setup lang="ts">
import { amount } from '../../parts/amount'
import { type Place, idOf } from './here'
import type { Card } from './useSections'

/** A section's own order: units and lessons as it takes them, each to be had change here. */
defineProps<{ card: Card; unit: string; canChange: boolean; chosen: Place | null }>()
const emit = defineEmits<{ choose: [place: Place] }>()
</script>

<template>
  <ol>
    <li v-for="(one, number) in card.units" :key="one.id">
      <p class="unit" :class="{ gone: one.skipped }">
        <span>{{ number + 1 }} {{ one.title }}</span>
        <span v-if="one.own" class="small">of this section only</span>
        <span v-if="one.orderVersion > 0" class="small">in another place than in the course</span>
        <span v-if="one.skipped" class="small">dropped here</span>
        <button
          v-if="canChange"
          type="button"
          class="word-button"
          :aria-expanded="chosen?.of === 'unit' && chosen.unit.id === one.id"
          @click="emit('choose', { of: 'unit', unit: one })"
        >
          change here<span class="said-only">: {{ one.title }}</span>
        </button>
      </p>
      <ol>
        <li
          v-for="lesson in one.lessons"
          :key="lesson.id"
          class="lesson"
          :class="{ gone: lesson.skipped, at: chosen?.of === 'lesson' && idOf(chosen) === lesson.id }"
        >
          <span class="title">{{ lesson.title }}</span>
          <span class="small">{{ lesson.skipped ? 'dropped here' : amount(lesson.length, unit) }}</span>
          <span v-if="lesson.own" class="small">of this section only</span>
          <span v-if="lesson.orderVersion > 0" class="small">another place</span>
          <button
            v-if="canChange"
            type="button"
            class="word-button"
            :aria-expanded="chosen?.of === 'lesson' && idOf(chosen) === lesson.id"
            @click="emit('choose', { of: 'lesson', unit: one, lesson })"
          >
            change here<span class="said-only">: {{ lesson.title }}</span>
          </button>
        </li>
      </ol>
    </li>
  </ol>
</template>

<style scoped>
.unit {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  padding: var(--space-6) 0 var(--space-3);
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.unit .word-button,
.unit .small {
  font: 400 var(--size-small) / 1.4 var(--face-text);
}
.lesson {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.at {
  background: var(--wash);
}
.title {
  min-width: 260px;
}
.word-button {
  margin-left: auto;
  font-size: var(--size-small);
}
.gone .title,
.gone > span:first-child {
  text-decoration: line-through;
  color: var(--ink-2);
}
</style>
