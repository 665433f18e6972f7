<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { type Schemas, api, ask } from '../../foundation/api/client'
import { useSend } from '../../foundation/commands/useSend'
import ProblemNote from '../../parts/ProblemNote.vue'
import NamedField from '../../parts/fields/NamedField.vue'
import CoverPage from '../begin/CoverPage.vue'

/** Somebody has a section’s code: where it leads is shown, and they join, with their account or with a new one. */
const route = useRoute()
const router = useRouter()
const client = useQueryClient()

const code = ref(typeof route.query.code === 'string' ? route.query.code.slice(0, 20) : '')
const name = ref('')
const email = ref('')
const found = ref<Schemas['CodeAnswer'] | null>(null)
const came = ref<Schemas['JoinAnswer'] | null>(null)
const looking = useSend((body: Schemas['LookAtCodeRequest']) => ask(api.POST('/api/join/look', { body })))
const joining = useSend((body: Schemas['JoinRequest']) => ask(api.POST('/api/join', { body })))

async function look(): Promise<void> {
  found.value = await looking.run({ code: code.value })
}

async function join(): Promise<void> {
  const self = found.value?.oneself !== null
  const joined = await joining.run({
    code: code.value,
    name: self ? null : name.value,
    email: self ? null : email.value,
  })
  if (!joined) return
  if (joined.address) return void (await router.push(new URL(joined.address).pathname))
  came.value = joined
  if (joined.section !== null) {
    client.clear()
    await router.push({ name: 'now', params: { section: joined.section } })
  }
}
</script>

<template>
  <CoverPage>
    <h1>Join a section</h1>
    <template v-if="came">
      <p v-if="came.state === 'mailed'" role="status">
        A letter is on its way to <b>{{ email }}</b>. It says how to go on.
      </p>
      <p v-else role="status">
        You have asked to join {{ found?.section }}. Once its teacher has let you in, you will find it on your first
        page.
      </p>
      <router-link :to="{ name: 'places' }">To your first page</router-link>
    </template>
    <form v-else-if="!found" novalidate @submit.prevent="look">
      <p class="second">Your teacher has given you a code of eight letters and digits.</p>
      <fieldset>
        <NamedField
          v-model="code"
          name="Section code"
          autocomplete="off"
          placeholder="KTRW-9MPA"
          autofocus
          :wrong="looking.wrong('code')"
        />
      </fieldset>
      <ProblemNote v-if="looking.general.value" :problem="looking.general.value" />
      <v-btn type="submit" class="meant" :disabled="looking.busy.value || !code.trim()">
        {{ looking.busy.value ? 'Looking …' : 'Go on' }}
      </v-btn>
    </form>
    <form v-else novalidate @submit.prevent="join">
      <p>
        <b>{{ found.section }}</b><template v-if="found.course">, {{ found.course }}</template> at {{ found.school }}
      </p>
      <p class="second">
        {{ found.approve ? 'You ask to join, and its teacher lets you in.' : 'You are in as soon as you join.' }}
      </p>
      <p v-if="found.oneself" class="second">You are signed in as {{ found.oneself }}.</p>
      <template v-else>
        <p class="second">
          If you have an account,
          <router-link :to="{ name: 'sign-in', query: { next: `/join?code=${code}` } }">sign in first</router-link>.
          Otherwise:
        </p>
        <fieldset>
          <NamedField v-model="name" name="Your name" autocomplete="name" autofocus :wrong="joining.wrong('name')" />
          <NamedField
            v-model="email"
            name="Your mail address"
            type="email"
            autocomplete="email"
            :wrong="joining.wrong('email')"
          />
        </fieldset>
      </template>
      <p v-if="joining.wrong('code')" class="accent">{{ joining.wrong('code') }}</p>
      <ProblemNote v-if="joining.general.value" :problem="joining.general.value" />
      <p class="line">
        <v-btn type="submit" class="meant" :disabled="joining.busy.value">
          {{ joining.busy.value ? 'Joining …' : found.approve ? 'Ask to join' : 'Join' }}
        </v-btn>
        <button type="button" class="word-button" @click="found = null">another code</button>
      </p>
    </form>
  </CoverPage>
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
}
b {
  font-weight: 600;
}
</style>
