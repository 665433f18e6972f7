<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import ProblemNote from '../../parts/ProblemNote.vue'
import NamedField from '../../parts/fields/NamedField.vue'
import CoverPage from './CoverPage.vue'

/** Somebody who was invited chooses a password, and is signed in. */
const props = defineProps<{ token: string }>()
const router = useRouter()
const client = useQueryClient()

const known = useAnswer(() => questions.welcome(props.token))
const password = ref('')
const again = ref('')
const differs = ref(false)
const { run, busy, general, wrong } = useSend((chosen: string) =>
  ask(api.POST('/api/welcome/{token}', { params: { path: { token: props.token } }, body: { password: chosen } })),
)

async function choose(): Promise<void> {
  differs.value = password.value !== again.value
  if (differs.value || !(await run(password.value))) return
  client.clear()
  await router.push({ name: 'places' })
}
</script>

<template>
  <CoverPage>
    <h1>{{ known.data.value ? `Welcome, ${known.data.value.name}` : 'Welcome' }}</h1>
    <ProblemNote v-if="known.problem.value" :problem="known.problem.value" />
    <p v-else-if="!known.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <p class="second">
        Choose a password. You will sign in with it and your address, <b>{{ known.data.value.email }}</b>.
      </p>
      <form novalidate @submit.prevent="choose">
        <fieldset>
          <NamedField
            v-model="password"
            name="Password"
            type="password"
            autocomplete="new-password"
            placeholder="at least 10 characters"
            autofocus
            :wrong="wrong('password')"
          />
          <NamedField
            v-model="again"
            name="The same password again"
            type="password"
            autocomplete="new-password"
            :wrong="differs ? 'This is not the same as the first one.' : null"
          />
        </fieldset>
        <ProblemNote v-if="general" :problem="general" />
        <v-btn type="submit" class="meant" :disabled="busy">{{ busy ? 'Saving …' : 'Save and sign in' }}</v-btn>
      </form>
    </template>
  </CoverPage>
</template>
