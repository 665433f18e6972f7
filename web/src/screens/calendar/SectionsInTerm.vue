<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'

/** The sections that meet in a term, and how the calendar leaves each of them. */
defineProps<{ term: number; sections: Schemas['CalendarAnswer']['sections']; canAdd: boolean }>()
const emit = defineEmits<{ add: []; choose: [section: Schemas['TermSectionCard']] }>()
</script>

<template>
  <section aria-labelledby="sections-title">
    <div class="ruled-head head">
      <h2 id="sections-title">Sections in this term</h2>
      <span v-if="canAdd" class="acts">
        <router-link :to="{ name: 'roster', params: { term } }" class="word-button">import a roster</router-link>
        <button type="button" class="word-button" @click="emit('add')">add sections</button>
      </span>
    </div>
    <p v-if="sections.length === 0" class="second none">
      No section meets in this term yet. You can set it up all the same.
    </p>
    <ul class="ruled">
      <li v-for="one in sections" :key="one.id">
        <component
          :is="canAdd ? 'button' : 'div'"
          class="section"
          v-bind="canAdd ? { type: 'button' } : {}"
          @click="canAdd && emit('choose', one)"
        >
          <SectionKey :letter="one.letter" :name="one.name" />
          <span class="second">{{ [one.subject, one.course].filter(Boolean).join(', ') }}</span>
          <span class="count">{{ counted(one.students, 'student') }}</span>
          <span class="count">{{ counted(one.classes, 'class', 'classes') }}</span>
          <span :class="{ short: one.lacks }">{{ one.standing }}</span>
        </component>
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
.acts {
  display: flex;
  gap: var(--space-6);
}
.none {
  padding: var(--space-5) 0;
}
.section {
  display: grid;
  grid-template-columns: 148px 1fr 96px 78px 140px;
  align-items: baseline;
  gap: var(--space-5);
  width: 100%;
  padding: var(--space-3) 0;
  text-align: left;
}
button.section:hover {
  background: var(--sheet);
}
.short {
  font-weight: 650;
}
</style>
