<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { type RouteLocationRaw, useRoute, useRouter } from 'vue-router'
import { type Schemas, api, ask } from '../../foundation/api/client'
import { isDemo } from '../../foundation/profile'
import { nextAfter } from '../../foundation/session'
import WordMark from '../../look/marks/WordMark.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import NamedField from '../../parts/fields/NamedField.vue'
import { onlyPlace } from '../places/onlyPlace'
import SignInDrawing from './SignInDrawing.vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/commands/useSend'

const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const email = ref('')
const password = ref('')
const provider = useAnswer(() => questions.provider())
const throughProvider = computed(
  () => `/api/sign-in/with-provider?next=${encodeURIComponent(nextAfter(route.query.next))}`,
)
/** What went wrong at the provider, as the way back tells it. */
const troubles: Record<string, string> = {
  cancelled: 'You were not signed in there. Try again, or sign in with your password.',
  late: 'That took too long, or began in another window. Try again.',
  failed: 'What came back from there could not be trusted. Try again; if it happens again, tell the school office.',
  away: 'It cannot be reached just now. Sign in with your password, or try again in a moment.',
  unknown: 'There is no account here for the person you signed in as. Ask the school office for one.',
  taken: 'Your address there belongs to another account here. The school office can put that right.',
}
const trouble = computed(() =>
  typeof route.query.trouble === 'string' && Object.hasOwn(troubles, route.query.trouble)
    ? troubles[route.query.trouble]
    : null,
)
const people = useAnswer(() => questions.demoPeople(), { enabled: isDemo })
const { run, busy, general, wrong } = useSend((body: Schemas['SignInRequest']) =>
  ask(api.POST('/api/sign-in', { body })),
)

/** Where to begin: in the only course or section one has; otherwise where they all stand. */
async function first(): Promise<RouteLocationRaw> {
  const all = await client.fetchQuery(questions.places()).catch(() => null)
  return (all && onlyPlace(all)) ?? { name: 'places' }
}

async function signIn(): Promise<void> {
  if (await run({ email: email.value, password: password.value }))
    await router.push(route.query.next ? nextAfter(route.query.next) : await first())
}

function signInAs(person: { email: string; password: string }): void {
  email.value = person.email
  password.value = person.password
  void signIn()
}
</script>

<template>
  <main class="page">
    <div class="columns" :class="{ demo: isDemo }">
      <section>
        <p class="cover"><WordMark large /></p>
        <p class="line">One course, many sections.</p>
        <form novalidate @submit.prevent="signIn">
          <h1 class="said-only">Sign in</h1>
          <p v-if="route.query.next" class="small">Sign in, and you will be taken back to where you were.</p>
          <NamedField
            v-model="email"
            name="Mail address"
            type="email"
            autocomplete="username"
            autofocus
            :wrong="wrong('email')"
          />
          <NamedField
            v-model="password"
            name="Password"
            type="password"
            autocomplete="current-password"
            :wrong="wrong('password')"
          />
          <ProblemNote v-if="general" :problem="general" />
          <p class="ways">
            <v-btn type="submit" class="meant" :disabled="busy">{{ busy ? 'Signing in …' : 'Sign in' }}</v-btn>
            <a v-if="provider.data.value?.name" :href="throughProvider">with {{ provider.data.value.name }}</a>
          </p>
          <p v-if="trouble" class="accent" role="alert">{{ trouble }}</p>
        </form>
      </section>
      <section v-if="isDemo" class="people" aria-labelledby="people-title">
        <h2 id="people-title" class="ruled-head">Fenwater College, a school that is made up</h2>
        <ul class="ruled">
          <li v-for="person in people.data.value" :key="person.email">
            <button type="button" class="person" :disabled="busy" @click="signInAs(person)">
              <b>{{ person.name }}</b>
              <span class="second">{{ person.about }}</span>
            </button>
          </li>
        </ul>
        <p class="small">
          Press a name to come in as that person. Mail that the school sends is
          <router-link :to="{ name: 'caught-mail' }">caught here</router-link>.
        </p>
      </section>
    </div>
    <SignInDrawing class="drawing" />
  </main>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.page {
  display: grid;
  grid-template-rows: 1fr auto;
  height: 100dvh;
  overflow: auto;
  padding: 0 var(--space-8);
}
.columns {
  display: grid;
  grid-template-columns: 340px;
  align-content: start;
  gap: var(--space-9) 120px;
  width: min(1040px, 100%);
  padding-top: var(--space-10);
  margin: 0 auto;
}
.columns.demo {
  grid-template-columns: 340px 1fr;
}
.line {
  color: var(--ink-2);
  font-size: var(--size-large);
  padding: var(--space-3) 0 var(--space-8);
}
form {
  display: grid;
  gap: var(--space-7);
  justify-items: stretch;
}
form .v-btn {
  justify-self: start;
}
.people {
  padding-top: var(--space-5);
}
h2 {
  font-size: var(--size-text);
  color: var(--ink-2);
}
.person {
  display: grid;
  grid-template-columns: 200px 1fr;
  width: 100%;
  padding: var(--space-5) 0;
}
.person b {
  font-weight: 600;
}
.person:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.people > .small {
  padding-top: var(--space-5);
}
@media (max-width: 860px) {
  .columns.demo {
    grid-template-columns: 1fr;
  }
  .drawing {
    display: none;
  }
}
</style>
