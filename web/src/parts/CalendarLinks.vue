<script setup lang="ts">
import { ref } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../foundation/api/client'
import { useAnswer } from '../foundation/useAnswer'
import ProblemNote from './ProblemNote.vue'
import { questions } from '../foundation/api/questions'

/** The calendars one may subscribe to elsewhere, by private links that are made, renewed and withdrawn here. */
const shown = defineModel<boolean>({ required: true })

type Choice = Schemas['CalendarChoice']
const links = useAnswer(() => questions.calendarLinks())
/** The link just made: shown this once. */
const made = ref<{ choice: string; address: string } | null>(null)
const problem = ref<Problem | null>(null)
const busy = ref(false)
const idOf = (choice: Choice) => `${choice.kind} ${choice.section ?? ''}`
const titleOf = (choice: Choice) =>
  choice.kind === 'teacher-calendar'
    ? 'Everything you teach'
    : choice.kind === 'student-calendar'
      ? 'What you have to do'
      : `${choice.sectionName}, as its students see it`

async function does(what: () => Promise<unknown>): Promise<void> {
  busy.value = true
  problem.value = null
  made.value = null
  await what().catch((error: unknown) => (problem.value = problemOf(error)))
  await links.refetch()
  busy.value = false
}

const make = (choice: Choice) =>
  does(async () => {
    const { kind, section } = choice
    const answer = await ask(
      api.POST('/api/me/make-calendar-link', { params: { header: once() }, body: { kind, section } }),
    )
    made.value = { choice: idOf(choice), address: answer.address }
  })

const withdraw = (choice: Choice) =>
  does(() =>
    ask(
      api.POST('/api/me/withdraw-calendar-link', {
        params: { header: once() },
        body: { kind: choice.kind, section: choice.section },
      }),
    ),
  )
</script>

<template>
  <v-dialog v-model="shown" aria-labelledby="links-title" max-width="720">
    <div class="sheet">
      <h2 id="links-title">Calendars</h2>
      <p class="second">
        Classes, openings and due dates in your own calendar. Anyone who has such a link can read it without signing in,
        so keep it to yourself, and withdraw it when you no longer need it.
      </p>
      <ProblemNote v-if="problem ?? links.problem.value" :problem="(problem ?? links.problem.value)!" />
      <ul class="ruled">
        <li v-for="choice in links.data.value ?? []" :key="idOf(choice)">
          <p class="line">
            <b>{{ titleOf(choice) }}</b>
            <span v-if="choice.madeAt" class="small">a link since {{ choice.madeAt.words }}</span>
            <button type="button" class="word-button" :disabled="busy" @click="make(choice)">
              {{ choice.madeAt ? 'make another' : 'make a link' }}
            </button>
            <button v-if="choice.madeAt" type="button" class="word-button" :disabled="busy" @click="withdraw(choice)">
              withdraw it
            </button>
          </p>
          <p v-if="made?.choice === idOf(choice)" class="made">
            <v-text-field
              class="large"
              :model-value="made.address"
              readonly
              aria-label="The link"
              @focus="($event.target as HTMLInputElement).select()"
            />
            <span class="small">Copy it now: it is shown only once.</span>
          </p>
        </li>
      </ul>
      <p v-if="links.data.value?.length === 0" class="second">
        Nothing yet: you do not teach a section and are not in one.
      </p>
      <p class="foot"><v-btn class="meant" @click="shown = false">Close</v-btn></p>
    </div>
  </v-dialog>
</template>

<style scoped>
h2 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
  padding-bottom: var(--space-4);
}
li {
  padding: var(--space-4) 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-6);
}
.line b {
  font-weight: 600;
  flex: 1 1 240px;
}
.foot {
  padding-top: var(--space-6);
}
</style>
