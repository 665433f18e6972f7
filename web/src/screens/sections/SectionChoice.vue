<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'
import { standing } from '../pace/paceWords'

/** The sections side by side, with how each stands; one of them is in view. */
defineProps<{ sections: Schemas['PaceSection'][]; unit: string; chosen: number }>()
const emit = defineEmits<{ choose: [section: number] }>()
</script>

<template>
  <nav class="choice" aria-label="Section">
    <button
      v-for="one in sections"
      :key="one.id"
      type="button"
      :aria-pressed="one.id === chosen"
      @click="emit('choose', one.id)"
    >
      <SectionKey :letter="one.letter" :name="one.name" />
      <span class="small"
        >{{ one.pretend ? 'pretend, counted nowhere' : counted(one.students, 'student') }},
        {{ standing(one, unit) }}</span
      >
    </button>
  </nav>
</template>

<style scoped>
.choice {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: var(--space-4) var(--space-7);
  padding-bottom: var(--space-6);
}
button {
  display: grid;
  align-content: start;
  border-bottom: var(--stroke-strong) solid transparent;
}
@media (forced-colors: active) {
  button {
    border-color: Canvas;
  }
}
button[aria-pressed='true'] {
  border-color: var(--ink);
}
</style>
