<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { defineAsyncComponent, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../foundation/api/client'
import { isDemo } from '../../foundation/profile'
import { forgetWriting, leaving } from '../../foundation/session'
import { usePaper } from '../../look/usePaper'
import CalendarLinks from '../CalendarLinks.vue'
import KeysSheet from '../KeysSheet.vue'

const DemoClock = defineAsyncComponent(() => import('./DemoClock.vue'))

/** Who one is, and what belongs to that: the paper, the keys, calendars, signing out. */
defineProps<{ name: string }>()

const client = useQueryClient()
const router = useRouter()
const { paper, turnOver } = usePaper()
const opened = ref(false)
const keysShown = ref(false)
const linksShown = ref(false)

function choose(act: () => unknown): void {
  opened.value = false
  act()
}

async function leave(everywhere: boolean): Promise<void> {
  leaving.value = true
  await ask(everywhere ? api.POST('/api/sign-out-everywhere') : api.POST('/api/sign-out'))
  forgetWriting()
  client.clear()
  await router.push({ name: 'sign-in' })
  leaving.value = false
}
</script>

<template>
  <v-menu v-model="opened" :close-on-content-click="false">
    <template #activator="{ props: opener }">
      <button v-bind="opener" type="button" class="who word-button">{{ name }}</button>
    </template>
    <nav class="sheet" aria-label="You">
      <ul role="menu">
        <li role="none">
          <button role="menuitem" type="button" @click="choose(turnOver)">
            {{ paper === 'day' ? 'Night paper' : 'Day paper' }}
          </button>
        </li>
        <li role="none">
          <button role="menuitem" type="button" @click="choose(() => (keysShown = true))">Keys and marks</button>
        </li>
        <li role="none">
          <button role="menuitem" type="button" @click="choose(() => (linksShown = true))">Calendars</button>
        </li>
        <li role="none">
          <button role="menuitem" type="button" @click="choose(() => router.push({ name: 'account' }))">
            Password and sessions
          </button>
        </li>
        <li v-if="isDemo" role="none">
          <button role="menuitem" type="button" @click="choose(() => router.push({ name: 'caught-mail' }))">
            Caught mail
          </button>
        </li>
        <li role="none"><button role="menuitem" type="button" @click="choose(() => leave(false))">Sign out</button></li>
        <li role="none">
          <button role="menuitem" type="button" @click="choose(() => leave(true))">Sign out everywhere</button>
        </li>
      </ul>
      <DemoClock v-if="isDemo" />
    </nav>
  </v-menu>
  <KeysSheet v-model="keysShown" />
  <CalendarLinks v-if="linksShown" v-model="linksShown" />
</template>

<style scoped>
.who {
  color: var(--ink-2);
}
.sheet {
  padding: var(--space-3) 0;
}
.sheet button {
  display: block;
  width: 100%;
  padding: var(--space-3) var(--space-7);
}
.sheet button:hover {
  background: var(--faint-hair);
}
</style>
