<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'
import { counted } from '../../foundation/words'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import NamedField from '../../parts/fields/NamedField.vue'

/** One's own account: the password, and where one is signed in. */
const account = useAnswer(() => questions.account())
const current = ref('')
const password = ref('')
const again = ref('')
const done = ref('')

const change = useSend(
  (body: Schemas['ChangePasswordRequest']) => ask(api.POST('/api/account/password', { body })),
  [keys.account],
)
const ending = useSend(
  (body: Schemas['SignOutElsewhereRequest'], key) =>
    ask(api.POST('/api/me/sign-out-elsewhere', { params: { header: once(key) }, body })),
  [keys.account],
)
const differs = computed(() => again.value !== '' && again.value !== password.value)
const others = computed(() => (account.data.value?.sessions ?? []).filter((one) => !one.isThis).length)

async function save(): Promise<void> {
  if (differs.value || again.value === '') return
  const answer = await change.run({ current: current.value, password: password.value })
  if (!answer) return
  done.value = answer.ended
    ? `Your password is changed, and you are signed out of ${counted(answer.ended, 'other session')}.`
    : 'Your password is changed.'
  current.value = password.value = again.value = ''
}

async function end(session: string | null): Promise<void> {
  const answer = await ending.run({ session })
  if (answer) done.value = `${counted(answer.ended, 'session is', 'sessions are')} ended.`
}
</script>

<template>
  <PlainPage>
    <section aria-labelledby="account-title">
      <div class="head">
        <h1 id="account-title">Your account</h1>
        <span v-if="account.data.value" class="second">{{ account.data.value.email }}</span>
      </div>
      <p v-if="done" role="status" class="done">{{ done }}</p>
      <ProblemNote
        v-if="account.problem.value && !account.data.value"
        :problem="account.problem.value"
        :again="account.refetch"
      />
      <p v-else-if="!account.data.value" class="second" role="status">Reading …</p>
      <div v-else class="two">
        <form novalidate @submit.prevent="save">
          <h2>Password</h2>
          <input type="text" autocomplete="username" :value="account.data.value.email" hidden />
          <NamedField
            v-model="current"
            name="Current password"
            type="password"
            autocomplete="current-password"
            :wrong="change.wrong('current')"
          />
          <NamedField
            v-model="password"
            name="New password"
            type="password"
            autocomplete="new-password"
            placeholder="at least 10 characters"
            :wrong="change.wrong('password')"
          />
          <NamedField
            v-model="again"
            name="New password again"
            type="password"
            autocomplete="new-password"
            :wrong="differs ? 'This is not the same as the first one.' : null"
          />
          <ProblemNote v-if="change.general.value" :problem="change.general.value" />
          <v-btn
            type="submit"
            class="meant"
            :disabled="change.busy.value || !current || !password || again === '' || differs"
          >
            {{ change.busy.value ? 'Changing …' : 'Change the password' }}
          </v-btn>
          <p class="small">You stay signed in here, and are signed out everywhere else.</p>
        </form>
        <section aria-labelledby="sessions-title">
          <h2 id="sessions-title">Where you are signed in</h2>
          <ProblemNote v-if="ending.problem.value" :problem="ending.problem.value" />
          <ul class="ruled">
            <li v-for="one in account.data.value.sessions" :key="one.session">
              <span>since {{ one.since }}</span>
              <span v-if="one.isThis" class="second">this one</span>
              <button v-else type="button" class="word-button" :disabled="ending.busy.value" @click="end(one.session)">
                sign out there<span class="said-only">: since {{ one.since }}</span>
              </button>
            </li>
          </ul>
          <button
            v-if="others > 1"
            type="button"
            class="word-button all"
            :disabled="ending.busy.value"
            @click="end(null)"
          >
            sign out of the {{ others }} others
          </button>
        </section>
      </div>
    </section>
  </PlainPage>
</template>

<style scoped>
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.done {
  padding-top: var(--space-5);
}
.two {
  display: grid;
  grid-template-columns: 340px minmax(0, 520px);
  gap: var(--space-8) var(--space-10);
  padding-top: var(--space-7);
}
form {
  display: grid;
  align-content: start;
  gap: var(--space-6);
}
form .v-btn {
  justify-self: start;
}
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
li {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: var(--space-5);
  padding: var(--space-4) 0;
}
.all {
  margin-top: var(--space-5);
}
@media (max-width: 800px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
