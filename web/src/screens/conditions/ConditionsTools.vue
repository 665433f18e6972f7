<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'

/** What is shown of the conditions: which unit, which sections, whose way, as a picture or in words. */
const props = defineProps<{
  answer: Schemas['ConditionsAnswer']
  units: string[]
  off: ReadonlySet<number>
}>()
const unit = defineModel<string | null>('unit', { required: true })
const student = defineModel<number | null>('student', { required: true })
const folded = defineModel<boolean>('folded', { required: true })
const beside = defineModel<boolean>('beside', { required: true })
const asList = defineModel<boolean>('asList', { required: true })
const emit = defineEmits<{ toggle: [section: number]; faults: [] }>()
const levels = useLevels()

const students = computed(() => [
  { value: null as number | null, title: 'nobody' },
  ...props.answer.sections.flatMap((section) =>
    section.students.map((one) => ({ value: one.student as number | null, title: one.name, note: section.name })),
  ),
])
</script>

<template>
  <div class="tools">
    <ChoiceField
      v-model="unit"
      :label="`Which ${levels.unit.many}`"
      :choices="[
        { value: null, title: `every ${levels.unit.one} with conditions` },
        ...units.map((title) => ({ value: title, title })),
      ]"
    />
    <span class="sections" role="group" aria-label="Sections">
      <button
        v-for="section in answer.sections"
        :key="section.section"
        type="button"
        class="section"
        :class="{ off: off.has(section.section) }"
        :aria-pressed="!off.has(section.section)"
        @click="emit('toggle', section.section)"
      >
        <SectionKey :letter="section.letter" :name="section.name" />
      </button>
    </span>
    <span class="follow">
      <span class="second">follow</span>
      <ChoiceField v-model="student" label="Follow a student" :choices="students" />
    </span>
    <span class="ends">
      <button v-if="!asList" type="button" class="word-button" :aria-pressed="beside" @click="beside = !beside">
        {{ beside ? 'sections together' : 'sections apart' }}
      </button>
      <button v-if="!asList" type="button" class="word-button" :aria-pressed="folded" @click="folded = !folded">
        {{ folded ? 'unfold' : `fold ${levels.unit.many}` }}
      </button>
      <button type="button" class="word-button" :aria-pressed="asList" @click="asList = !asList">
        {{ asList ? 'as a picture' : 'in words' }}
      </button>
      <button v-if="answer.faults.length" type="button" class="word-button" @click="emit('faults')">
        to check: {{ answer.faults.length }}
      </button>
    </span>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-7);
  padding: var(--space-4) 0;
}
.sections,
.follow,
.ends {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
.ends {
  margin-left: auto;
}
.section.off {
  opacity: 0.45;
}
</style>
