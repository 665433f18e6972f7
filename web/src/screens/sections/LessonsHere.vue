<script setup lang="ts">
import { useLevels } from '../../foundation/levels'
import { amount } from '../../parts/amount'
import { type Place, idOf } from './here'
import type { Card } from './useSections'

/** A section's own order: units and lessons as it takes them. Pressing one changes it for this section. */
defineProps<{ card: Card; unit: string; canChange: boolean; chosen: Place | null }>()
const levels = useLevels()
const emit = defineEmits<{ choose: [place: Place] }>()
</script>

<template>
  <p v-if="canChange" class="small hint">
    Press a {{ levels.unit.one }} or {{ levels.lesson.one }} to change it for this section.
  </p>
  <ol>
    <li v-for="(one, number) in card.units" :key="one.id">
      <p class="unit" :class="{ gone: one.skipped }">
        <button
          v-if="canChange"
          type="button"
          class="title"
          :aria-expanded="chosen?.of === 'unit' && chosen.unit.id === one.id"
          @click="emit('choose', { of: 'unit', unit: one })"
        >
          {{ number + 1 }} {{ one.title }}
        </button>
        <span v-else class="title">{{ number + 1 }} {{ one.title }}</span>
        <span v-if="one.own" class="small">of this section only</span>
        <span v-if="one.orderVersion > 0" class="small">in another place than in the course</span>
        <span v-if="one.skipped" class="small">dropped here</span>
      </p>
      <ol>
        <li
          v-for="lesson in one.lessons"
          :key="lesson.id"
          class="lesson"
          :class="{ gone: lesson.skipped, at: chosen?.of === 'lesson' && idOf(chosen) === lesson.id }"
        >
          <button
            v-if="canChange"
            type="button"
            class="title"
            :aria-expanded="chosen?.of === 'lesson' && idOf(chosen) === lesson.id"
            @click="emit('choose', { of: 'lesson', unit: one, lesson })"
          >
            {{ lesson.title }}
          </button>
          <span v-else class="title">{{ lesson.title }}</span>
          <span class="small">{{ lesson.skipped ? 'dropped here' : amount(lesson.length, unit) }}</span>
          <span v-if="lesson.own" class="small">of this section only</span>
          <span v-if="lesson.orderVersion > 0" class="small">another place</span>
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
.hint {
  padding-top: var(--space-4);
}
.lesson .title {
  min-width: 260px;
}
button.title:hover,
button.title[aria-expanded='true'] {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.gone .title {
  text-decoration: line-through;
  color: var(--ink-2);
}
</style>
