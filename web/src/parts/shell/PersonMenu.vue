<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask } from '../../foundation/api/client'
import { leaving } from '../../foundation/session'
import { usePaper } from '../../look/usePaper'
import CalendarLinks from '../CalendarLinks.vue'
import KeysSheet from '../KeysSheet.vue'

/** Who one is, and what belongs to that: the paper, the keys, calendars, signing out. */
defineProps<{ name: string }>()

const client = useQueryClient()
const router = useRouter()
const { paper, turnOver } = usePaper()
const keysShown = ref(false)
const linksShown = ref(false)

async function leave(everywhere: boolean): Promise<void> {
  leaving.value = true
  await ask(everywhere ? api.POST('/api/sign-out-everywhere') : api.POST('/api/sign-out'))
  client.clear()
  await router.push({ name: 'sign-in' })
  leaving.value = false
}
</script>

<template>
  <v-menu>
    <template #activator="{ props: opener }">
      <button v-bind="opener" type="button" class="who word-button">{{ name }}</button>
    </template>
    <nav class="sheet" aria-label="You">
      <ul role="menu">
        <li role="none">
          <button role="menuitem" type="button" @click="turnOver">
            {{ paper === 'day' ? 'Night paper' : 'Day paper' }}
          </button>
        </li>
        <li role="none"><button role="menuitem" type="button" @click="keysShown = true">Keys and marks</button></li>
        <li role="none"><button role="menuitem" type="button" @click="linksShown = true">Calendars</button></li>
        <li role="none"><button role="menuitem" type="button" @click="leave(false)">Sign out</button></li>
        <li role="none"><button role="menuitem" type="button" @click="leave(true)">Sign out everywhere</button></li>
      </ul>
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
