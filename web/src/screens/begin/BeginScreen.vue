<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Problem, api, ask, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import CoverPage from './CoverPage.vue'

/** A school that has nothing begins here: the first account of the office, the school, its first term. */
const props = defineProps<{ token: string }>()
const router = useRouter()
const client = useQueryClient()

const known = useAnswer(() => questions.begin(props.token))
const here = Intl.DateTimeFormat().resolvedOptions().timeZone
const draft = reactive({ name: '', email: '', password: '', school: '', zone: here, term: '', first: '', last: '' })
const zones = computed(() =>
  (known.data.value?.zones ?? []).map((zone) => ({ value: zone, title: zone.replaceAll('_', ' ') })),
)
const busy = ref(false)
const problem = ref<Problem | null>(null)
const general = computed(() => (problem.value?.field ? null : problem.value))
const wrong = (field: string) => (problem.value?.field === field ? [problem.value.title] : [])

async function begin(): Promise<void> {
  if (busy.value) return
  busy.value = true
  problem.value = null
  try {
    const { term } = await ask(
      api.POST('/api/begin/{token}', { params: { path: { token: props.token } }, body: { ...draft } }),
    )
    client.clear()
    await router.push({ name: 'calendar', params: { term } })
  } catch (error) {
    problem.value = problemOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <CoverPage>
    <h1>Begin a school</h1>
    <ProblemNote v-if="known.problem.value" :problem="known.problem.value" />
    <p v-else-if="!known.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <p class="second">
        You will be the first person in the school office. The days, periods and closures of the term come next.
      </p>
      <form novalidate @submit.prevent="begin">
        <fieldset>
          <legend>You</legend>
          <div>
            <label class="field-name" for="begin-name">Name</label>
            <v-text-field
              id="begin-name"
              v-model="draft.name"
              class="large"
              autocomplete="name"
              autofocus
              :error-messages="wrong('name')"
            />
          </div>
          <div>
            <label class="field-name" for="begin-email">Mail address</label>
            <v-text-field
              id="begin-email"
              v-model="draft.email"
              class="large"
              type="email"
              autocomplete="username"
              :error-messages="wrong('email')"
            />
          </div>
          <div>
            <label class="field-name" for="begin-password">Password</label>
            <v-text-field
              id="begin-password"
              v-model="draft.password"
              class="large"
              type="password"
              autocomplete="new-password"
              placeholder="at least 10 characters"
              :error-messages="wrong('password')"
            />
          </div>
        </fieldset>
        <fieldset>
          <legend>The school</legend>
          <div>
            <label class="field-name" for="begin-school">Name</label>
            <v-text-field
              id="begin-school"
              v-model="draft.school"
              class="large"
              autocomplete="organization"
              :error-messages="wrong('school')"
            />
          </div>
          <div>
            <span class="field-name">Time zone</span>
            <ChoiceField v-model="draft.zone" label="Time zone" :choices="zones" placeholder="choose a place" />
            <p v-if="wrong('zone').length" class="accent" role="alert">{{ wrong('zone')[0] }}</p>
          </div>
        </fieldset>
        <fieldset>
          <legend>Its first term</legend>
          <div>
            <label class="field-name" for="begin-term">Name</label>
            <v-text-field
              id="begin-term"
              v-model="draft.term"
              class="large"
              autocomplete="off"
              placeholder="Autumn term"
              :error-messages="wrong('term')"
            />
          </div>
          <div>
            <span class="field-name">First and last day</span>
            <p class="line">
              <DateField v-model="draft.first" label="First day of the term" />
              <span>to</span>
              <DateField v-model="draft.last" label="Last day of the term" :min="draft.first || undefined" />
            </p>
            <p v-if="wrong('first').length || wrong('last').length" class="accent" role="alert">
              {{ [...wrong('first'), ...wrong('last')][0] }}
            </p>
          </div>
        </fieldset>
        <ProblemNote v-if="general" :problem="general" />
        <v-btn type="submit" class="meant" :disabled="busy">{{ busy ? 'Beginning …' : 'Begin the school' }}</v-btn>
      </form>
    </template>
  </CoverPage>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
}
</style>
