<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import SectionKey from '../../look/marks/SectionKey.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'
import { type View, onlyWords } from './outlineView'

/** One line over the rows: what is looked for, what stands at their right, who follows, and what holds for the course. */
defineProps<{ edition: number; outline: Schemas['OutlineAnswer']; allFolded: boolean }>()
const emit = defineEmits<{ fold: []; settings: [] }>()
const view = defineModel<View>({ required: true })
const show = defineModel<string>('show', { required: true })

const ways = [
  { value: 'lines', title: 'lines' },
  { value: 'dates', title: 'dates' },
  { value: 'handed-in', title: 'handed in' },
]
const only = Object.entries(onlyWords).map(([value, title]) => ({ value: value as View['only'], title }))
</script>

<template>
  <p class="tools small" role="search">
    <WordField
      :model-value="view.words"
      label="Find in the course"
      class="words"
      placeholder="find in the course"
      @update:model-value="view = { ...view, words: $event }"
    />
    <ChoiceField
      :model-value="view.only"
      label="Which rows"
      :choices="only"
      @update:model-value="view = { ...view, only: $event }"
    />
    <button type="button" class="word-button" @click="emit('fold')">{{ allFolded ? 'unfold all' : 'fold all' }}</button>
    <span role="group" aria-label="At the right of each row" class="show">
      show:
      <template v-for="(way, n) in ways" :key="way.value">
        <template v-if="n > 0"> · </template
        ><button type="button" :aria-pressed="show === way.value" @click="show = way.value">{{ way.title }}</button>
      </template>
    </span>
    <span v-if="outline.sections.length === 0">No section yet</span>
    <span v-for="section in outline.sections" :key="section.id" :title="`${section.students} students`">
      <SectionKey :letter="section.letter" :name="section.name" :short="outline.sections.length > 5" />
    </span>
    <span class="end">
      <span v-if="outline.state === 'resting'" class="accent">A past edition: it can be read, not changed</span>
      <template v-if="outline.canChange">
        <router-link :to="{ name: 'joining', params: { edition } }" class="word-button">add a section</router-link>
        <button type="button" class="word-button" @click="emit('settings')">course settings</button>
      </template>
    </span>
  </p>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-6);
}
.tools :deep(.word-button),
.show button {
  min-height: 24px;
}
.words {
  flex: none;
  width: 170px;
}
.show button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
}
.show button[aria-pressed='false'] {
  text-decoration: underline;
  text-decoration-color: var(--hair);
  text-underline-offset: 3px;
}
.end {
  display: flex;
  gap: var(--space-6);
  margin-left: auto;
}
</style>
