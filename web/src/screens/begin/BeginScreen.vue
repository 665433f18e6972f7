<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, reactive } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import NamedField from '../../parts/fields/NamedField.vue'
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
const { run, busy, general, wrong } = useSend((body: Schemas['BeginRequest']) =>
  ask(api.POST('/api/begin/{token}', { params: { path: { token: props.token } }, body })),
)

async function begin(): Promise<void> {
  const begun = await run({ ...draft })
  if (!begun) return
  client.clear()
  await router.push({ name: 'calendar', params: { term: begun.term } })
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
          <NamedField v-model="draft.name" name="Name" autocomplete="name" autofocus :wrong="wrong('name')" />
          <NamedField
            v-model="draft.email"
            name="Mail address"
            type="email"
            autocomplete="username"
            :wrong="wrong('email')"
          />
          <NamedField
            v-model="draft.password"
            name="Password"
            type="password"
            autocomplete="new-password"
            placeholder="at least 10 characters"
            :wrong="wrong('password')"
          />
        </fieldset>
        <fieldset>
          <legend>The school</legend>
          <NamedField v-model="draft.school" name="Name" autocomplete="organization" :wrong="wrong('school')" />
          <div>
            <span class="field-name">Time zone</span>
            <ChoiceField v-model="draft.zone" label="Time zone" :choices="zones" placeholder="choose a place" />
            <p v-if="wrong('zone')" class="accent" role="alert">{{ wrong('zone') }}</p>
          </div>
        </fieldset>
        <fieldset>
          <legend>Its first term</legend>
          <NamedField
            v-model="draft.term"
            name="Name"
            autocomplete="off"
            placeholder="Autumn term"
            :wrong="wrong('term')"
          />
          <div>
            <span class="field-name">First and last day</span>
            <p class="line">
              <DateField v-model="draft.first" label="First day of the term" />
              <span>to</span>
              <DateField v-model="draft.last" label="Last day of the term" :min="draft.first || undefined" />
            </p>
            <p v-if="wrong('first') ?? wrong('last')" class="accent" role="alert">
              {{ wrong('first') ?? wrong('last') }}
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
