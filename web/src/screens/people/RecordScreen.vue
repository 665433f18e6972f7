<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'

/** Who did what? The office’s: accounts, rosters, courses made, and every change of a plan, the latest first. */
const route = useRoute()
const router = useRouter()
const PAGE = 100
const parts = [
  { value: '', title: 'everything' },
  { value: 'school', title: 'people, sections and courses' },
  { value: 'plans', title: 'changes of courses and calendars' },
  { value: 'sign-ins', title: 'signing in' },
]

const written = (name: string) => (typeof route.query[name] === 'string' ? route.query[name] : '')
const write = (name: string, value: string) =>
  void router.replace({ query: { ...route.query, [name]: value || undefined } })
const of = computed({
  get: () => (parts.some((part) => part.value === written('of')) ? written('of') : ''),
  set: (value) => write('of', value),
})
const person = computed({
  get: () => Number(written('person')) || null,
  set: (value) => write('person', value === null ? '' : `${value}`),
})
const page = ref(0)
watch([of, person], () => (page.value = 0))
const people = useAnswer(() => questions.people())
const answer = useAnswer(() => questions.record(of.value, person.value, page.value * PAGE), { stays: true })
const who = computed(() => [
  { value: null as number | null, title: 'by anybody' },
  ...(people.data.value?.people ?? []).map((one) => ({
    value: one.person as number | null,
    title: one.name,
    note: one.email,
  })),
])
</script>

<template>
  <PlainPage>
    <section class="record" aria-labelledby="record-title">
      <h1 id="record-title">Who did what</h1>
      <p class="tools">
        <ChoiceField v-model="of" label="What was done" :choices="parts" />
        <ChoiceField v-model="person" label="By whom, or with whose account" :choices="who" />
        <router-link :to="{ name: 'people' }" class="word-button end">people</router-link>
      </p>
      <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
      <p v-else-if="!answer.data.value" class="second" role="status">Reading …</p>
      <p v-else-if="answer.data.value.lines.length === 0" class="second">Nothing of that kind has been done yet.</p>
      <template v-else>
        <ol class="ruled" :aria-label="page === 0 ? 'The latest first' : `From line ${page * PAGE + 1} on`">
          <li v-for="(line, n) in answer.data.value.lines" :key="`${line.at.instant} ${n}`">
            <span class="second">{{ line.at.words }}</span>
            <span
              ><b>{{ line.who || 'Somebody' }}</b> {{ line.words }}</span
            >
            <span class="second">{{ line.place }}</span>
          </li>
        </ol>
        <p class="tools">
          <button v-if="page > 0" type="button" class="word-button" @click="page -= 1">later</button>
          <button v-if="answer.data.value.hasMore" type="button" class="word-button" @click="page += 1">earlier</button>
        </p>
      </template>
    </section>
  </PlainPage>
</template>

<style scoped>
.record {
  display: grid;
  gap: var(--space-5);
}
h1 {
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-7);
}
.end {
  margin-left: auto;
}
ol {
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 220px;
  gap: var(--space-3) var(--space-6);
  padding: var(--space-3) 0;
  overflow-wrap: anywhere;
}
b {
  font-weight: 600;
}
@media (max-width: 800px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
