<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'

/** The sections that meet in a term, and how the calendar leaves each of them. */
defineProps<{ sections: Schemas['CalendarAnswer']['sections']; canAdd: boolean }>()
const emit = defineEmits<{ add: [] }>()
</script>

<template>
  <section aria-labelledby="sections-title">
    <div class="ruled-head head">
      <h2 id="sections-title">Sections in this term</h2>
      <button v-if="canAdd" type="button" class="word-button" @click="emit('add')">add a section</button>
    </div>
    <p v-if="sections.length === 0" class="second none">
      No section meets in this term yet. You can set it up all the same.
    </p>
    <ul class="ruled">
      <li v-for="one in sections" :key="one.id" class="section">
        <SectionKey :letter="one.letter" :name="one.name" />
        <span class="second">{{ one.course ?? '' }}</span>
        <span class="count">{{ counted(one.classes, 'class', 'classes') }}</span>
        <span :class="{ short: one.lacks }">{{ one.standing }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
.none {
  padding: var(--space-5) 0;
}
.section {
  display: grid;
  grid-template-columns: 150px 1fr 84px 190px;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.short {
  font-weight: 650;
}
</style>
