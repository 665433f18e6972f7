<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import TickField from '../../parts/fields/TickField.vue'
import PastImports from './PastImports.vue'
import RosterFeedLine from './RosterFeedLine.vue'
import RosterLines from './RosterLines.vue'
import { type Column, columnWords, said } from './roster'
import { useRoster } from './useRoster'

/** Who is in which section, from a file: looked at row by row before anything is written. */
const props = defineProps<{ term: number }>()

const calendar = useAnswer(() => questions.calendar(props.term))
const roster = useRoster(toRef(props, 'term'))
const { round, file, columns, from, endMissing, shown, done, lacks } = roster
const choices = (Object.keys(columnWords) as Column[]).map((value) => ({ value, title: columnWords[value] }))
const backWords = ref('')

// Now, or when the term begins.
watch(
  () => calendar.data.value,
  (term) => {
    if (term && from.value === null)
      from.value = term.today > term.first && term.today <= term.last ? term.today : term.first
  },
  { immediate: true },
)
const isNothing = computed(() => shown.value?.sentence === 'Nothing changes')

async function takeBack(number: number): Promise<void> {
  const answer = await roster.takeBack(number)
  backWords.value = answer?.sentence ?? ''
}
</script>

<template>
  <PlainPage>
    <section aria-labelledby="roster-title">
      <div class="head">
        <h1 id="roster-title">Roster</h1>
        <router-link v-if="calendar.data.value" :to="{ name: 'calendar', params: { term } }">{{
          calendar.data.value.name
        }}</router-link>
      </div>
      <ProblemNote
        v-if="calendar.problem.value && !calendar.data.value"
        :problem="calendar.problem.value"
        :again="calendar.refetch"
      />
      <RosterFeedLine :term="term" @look="roster.choose" />
      <form novalidate @submit.prevent="roster.send">
        <p class="line">
          <span>People and their sections from</span>
          <v-file-input
            :key="round"
            class="file"
            aria-label="The roster’s file"
            placeholder="choose a file"
            accept=".csv,.tsv,.txt,.zip,text/csv,application/zip"
            @update:model-value="(chosen) => roster.choose(chosen)"
          />
          <span>starting on</span>
          <DateField
            v-model="from"
            label="First day for anyone the file gives no date"
            :min="calendar.data.value?.first"
            :max="calendar.data.value?.last"
          />
          <TickField v-model="endMissing" label="and end the enrolment of anyone who is not in it" />
        </p>
        <p v-if="!file && !done" class="second">
          A table (CSV) with a row for each person and section, or OneRoster 1.1 or 1.2 as a zip. You see what will
          happen to each row before anything is written.
        </p>
        <div v-if="columns && file" class="columns">
          <p class="small">
            {{ columns.remembered ? 'The columns, as they were last time' : 'What the columns seem to be' }}
          </p>
          <ul>
            <li v-for="(heading, n) in columns.headings" :key="n">
              <b>{{ heading || `column ${n + 1}` }}</b>
              <ChoiceField
                :model-value="columns.are[n] ?? 'ignored'"
                :label="`What ${heading || `column ${n + 1}`} is`"
                :choices="choices"
                @update:model-value="(column) => columns && (columns.are = said(columns.are, n, column))"
              />
            </li>
          </ul>
          <p v-if="lacks" class="accent" role="status">{{ lacks }}</p>
        </div>
        <ProblemNote v-if="roster.problem.value" :problem="roster.problem.value" />
        <p v-if="roster.reading.value" class="second" role="status">Reading the file …</p>
        <template v-if="shown && file">
          <RosterLines :answer="shown" />
          <p class="line act">
            <v-btn type="submit" class="meant" :disabled="roster.importing.value || isNothing">
              {{ roster.importing.value ? 'Importing …' : 'Import the roster' }}
            </v-btn>
            <span role="status">{{ shown.sentence }}.</span>
          </p>
          <v-progress-linear
            v-if="roster.importing.value"
            indeterminate
            color="ink"
            height="2"
            aria-label="Importing"
          />
        </template>
        <p v-if="done" class="line" role="status">
          <b>Imported.</b> <span>{{ done.sentence }}.</span>
          <router-link :to="{ name: 'calendar', params: { term } }">to the sections of the term</router-link>
        </p>
      </form>
    </section>
    <PastImports :term="term" @take-back="takeBack">
      <ProblemNote v-if="roster.backProblem.value" :problem="roster.backProblem.value" />
      <p v-else-if="backWords" role="status">{{ backWords }}</p>
    </PastImports>
  </PlainPage>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
form {
  display: grid;
  gap: var(--space-5);
  padding-top: var(--space-6);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.file {
  flex: 0 1 280px;
}
.columns {
  display: grid;
  gap: var(--space-3);
}
.columns ul {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-4) var(--space-8);
  list-style: none;
}
.columns li {
  display: grid;
  gap: var(--space-1);
}
b {
  font-weight: 600;
}
</style>
