<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import { sectionLines } from '../../look/theme'
import ProblemNote from '../../parts/ProblemNote.vue'
import type { useRollOver } from './useRollOver'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** The next edition, on the new calendar, before anything is written. */
const props = defineProps<{ answer: Schemas['EditionsAnswer']; rolling: ReturnType<typeof useRollOver> }>()
const emit = defineEmits<{ go: [] }>()
const levels = useLevels()

const { form, shown, problem, busy, isWhole } = props.rolling

function addSection(): void {
  const used = new Set(form.sections.map((section) => section.letter))
  const letter = Object.keys(sectionLines).find((one) => !used.has(one)) ?? 'Z'
  form.sections.push({ name: '', letter, succeeds: props.answer.sections[0]!.id })
}
</script>

<template>
  <section aria-label="Roll over">
    <h2>Roll over into the next edition</h2>
    <p class="second about">
      The whole course comes along: {{ levels.unit.many }}, {{ levels.lesson.many }}, {{ levels.item.many }}, texts,
      files, timing, conditions and team notes. What belongs to one section only stays behind, and so does all student
      work. This edition carries on until you end it.
    </p>
    <p v-if="answer.terms.length === 0" class="second">
      There is no later term yet. Ask the office to set one up; then you can roll over.
    </p>
    <form v-else novalidate @submit.prevent="emit('go')">
      <p class="line">
        <span>The new edition is called</span>
        <WordField v-model="form.title" label="The new edition is called" />
        <span>and is for the</span>
        <ChoiceField
          v-model="form.term"
          label="Term"
          :choices="answer.terms.map((term) => ({ value: term.id, title: `${term.name}, ${term.dates}` }))"
        />
      </p>
      <p class="line">
        <span>Fixed dates</span>
        <ChoiceField
          v-model="form.fixedDates"
          label="Fixed dates"
          :choices="[
            { value: 'week', title: 'move to the same teaching week and weekday' },
            { value: 'clear', title: 'are cleared' },
          ]"
        />
      </p>
      <p v-for="(section, at) in form.sections" :key="at" class="line">
        <span>A section</span>
        <WordField
          v-model="section.name"
          :label="`Name of section ${at + 1}`"
          :maxlength="100"
          placeholder="its name"
        />
        <span>marked</span>
        <ChoiceField
          v-model="section.letter"
          :label="`Letter of section ${at + 1}`"
          :choices="Object.keys(sectionLines).map((letter) => ({ value: letter, title: letter }))"
        />
        <span>taking over the timetable and teachers of</span>
        <ChoiceField
          v-model="section.succeeds"
          :label="`Timetable and teachers of section ${at + 1}`"
          :choices="answer.sections.map((one) => ({ value: one.id, title: one.name }))"
        />
        <button type="button" class="word-button small" @click="form.sections.splice(at, 1)">take out</button>
      </p>
      <p v-if="answer.sections.length">
        <button type="button" class="word-button" @click="addSection">add a section</button>
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
      <div v-if="shown" class="shown" role="status">
        <p>{{ shown.sentence }}</p>
        <ul class="ruled">
          <li v-for="section in shown.sections" :key="section.name">
            <b>{{ section.name }}</b>
            <span
              >{{ section.classes }} classes<template v-if="section.firstClass"
                >, the first {{ section.firstClass.words }}</template
              ></span
            >
            <span v-if="section.lacking" class="accent">{{ section.lacking }} classes short</span>
            <span v-else-if="section.lastLessonEnds">ends {{ section.lastLessonEnds.words }}</span>
            <span class="small wide">{{ section.doesNotFit.join(' ') }}</span>
          </li>
          <li v-for="item in shown.redated" :key="item.code + item.field">
            <b>{{ item.code }} {{ item.title }}</b>
            <span>{{ item.field }} {{ item.before }}</span>
            <span>{{ item.after ?? 'cleared: check it' }}</span>
          </li>
        </ul>
      </div>
      <p v-else class="small">
        {{ isWhole ? 'Laying it on the new calendar …' : 'Name the section to see what comes of it.' }}
      </p>
      <p>
        <v-btn type="submit" class="meant" :disabled="!shown || busy">{{
          busy ? 'Rolling over …' : 'Roll over'
        }}</v-btn>
      </p>
    </form>
  </section>
</template>

<style scoped>
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-8) 0 var(--space-2);
}
.about {
  padding: var(--space-4) 0;
  max-width: 80ch;
}
form {
  display: grid;
  gap: var(--space-5);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4);
}
.shown {
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
.shown li {
  display: grid;
  grid-template-columns: 160px 280px 1fr;
  gap: var(--space-2) var(--space-6);
  padding: var(--space-3) 0;
}
.wide {
  grid-column: 2 / -1;
}
</style>
