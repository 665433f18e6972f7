<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import { sectionLines } from '../../look/theme'
import ProblemNote from '../../parts/ProblemNote.vue'
import type { useRollOver } from './useRollOver'

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
      Everything of the course comes along: {{ levels.unit.many }}, {{ levels.lesson.many }}, {{ levels.item.many }},
      texts, timing, conditions. What is of one section only stays behind, and so does everything of the students. This
      edition goes on as it is until you end it.
    </p>
    <p v-if="answer.terms.length === 0" class="second">
      No term after this one is set up yet. The office sets up terms; then it can be rolled over.
    </p>
    <form v-else novalidate @submit.prevent="emit('go')">
      <p class="line">
        <label for="roll-title">The new edition is called</label>
        <input id="roll-title" v-model="form.title" type="text" maxlength="200" autocomplete="off" />
        <label for="roll-term">and is for the</label>
        <select id="roll-term" v-model="form.term">
          <option v-for="term in answer.terms" :key="term.id" :value="term.id">
            {{ term.name }}, {{ term.dates }}
          </option>
        </select>
      </p>
      <p class="line">
        <label for="roll-fixed">Dates that are fixed in the calendar</label>
        <select id="roll-fixed" v-model="form.fixedDates">
          <option value="week">go to the same teaching week and weekday</option>
          <option value="clear">are cleared</option>
        </select>
      </p>
      <p v-for="(section, at) in form.sections" :key="at" class="line">
        <label :for="`roll-section-${at}`">A section</label>
        <input :id="`roll-section-${at}`" v-model="section.name" type="text" maxlength="100" placeholder="its name" />
        <label :for="`roll-letter-${at}`">marked</label>
        <select :id="`roll-letter-${at}`" v-model="section.letter">
          <option v-for="letter in Object.keys(sectionLines)" :key="letter">{{ letter }}</option>
        </select>
        <label :for="`roll-succeeds-${at}`">with the timetable and teachers of</label>
        <select :id="`roll-succeeds-${at}`" v-model="section.succeeds">
          <option v-for="one in answer.sections" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <button type="button" class="word-button small" @click="form.sections.splice(at, 1)">take out</button>
      </p>
      <p v-if="answer.sections.length">
        <button type="button" class="word-button" @click="addSection">one more section</button>
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
            <span v-if="section.lacking" class="accent">{{ section.lacking }} classes too few</span>
            <span v-else-if="section.lastLessonEnds">ends {{ section.lastLessonEnds.words }}</span>
            <span class="small wide">{{ section.doesNotFit.join(' ') }}</span>
          </li>
          <li v-for="item in shown.redated" :key="item.code + item.field">
            <b>{{ item.code }} {{ item.title }}</b>
            <span>{{ item.field }} {{ item.before }}</span>
            <span>{{ item.after ?? 'cleared: look at it' }}</span>
          </li>
        </ul>
      </div>
      <p v-else class="small">
        {{ isWhole ? 'Laying it on the new calendar …' : 'Name the section, and what comes of it is shown here.' }}
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
