<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Problem, api, ask, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import ProblemNote from '../../parts/ProblemNote.vue'
import CoverPage from './CoverPage.vue'

/** Somebody who was invited sets a password, and is signed in. */
const props = defineProps<{ token: string }>()
const router = useRouter()
const client = useQueryClient()

const known = useAnswer(() => questions.welcome(props.token))
const password = ref('')
const again = ref('')
const busy = ref(false)
const problem = ref<Problem | null>(null)
const differs = ref(false)
const general = computed(() => (problem.value?.field ? null : problem.value))

async function set(): Promise<void> {
  if (busy.value) return
  problem.value = null
  differs.value = password.value !== again.value
  if (differs.value) return
  busy.value = true
  try {
    await ask(
      api.POST('/api/welcome/{token}', {
        params: { path: { token: props.token } },
        body: { password: password.value },
      }),
    )
    client.clear()
    await router.push({ name: 'places' })
  } catch (error) {
    problem.value = problemOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <CoverPage>
    <h1>{{ known.data.value ? `Welcome, ${known.data.value.name}` : 'Welcome' }}</h1>
    <ProblemNote v-if="known.problem.value" :problem="known.problem.value" />
    <p v-else-if="!known.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <p class="second">
        Choose a password. From then on you sign in with <b>{{ known.data.value.email }}</b> and that.
      </p>
      <form novalidate @submit.prevent="set">
        <fieldset>
          <div>
            <label class="field-name" for="welcome-password">Password</label>
            <v-text-field
              id="welcome-password"
              v-model="password"
              class="large"
              type="password"
              autocomplete="new-password"
              placeholder="at least 10 characters"
              autofocus
              :error-messages="problem?.field ? [problem.title] : []"
            />
          </div>
          <div>
            <label class="field-name" for="welcome-again">The same again</label>
            <v-text-field
              id="welcome-again"
              v-model="again"
              class="large"
              type="password"
              autocomplete="new-password"
              :error-messages="differs ? ['This is not the same as the first one.'] : []"
            />
          </div>
        </fieldset>
        <ProblemNote v-if="general" :problem="general" />
        <v-btn type="submit" class="meant" :disabled="busy">{{ busy ? 'Saving …' : 'Save and sign in' }}</v-btn>
      </form>
    </template>
  </CoverPage>
</template>
