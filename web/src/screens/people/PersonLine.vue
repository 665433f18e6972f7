<script setup lang="ts">
import { computed, ref } from 'vue'
import ErasePanel from './ErasePanel.vue'
import JoinPanel from './JoinPanel.vue'
import { type Act, type PersonRow, actsOn, partOf, standingOf } from './people'

/** One person with an account; opened, what the office can do with it stands under the line. */
const props = defineProps<{
  person: PersonRow
  opened: boolean
  busy: boolean
  hasMail: boolean
  people: readonly PersonRow[]
}>()
const emit = defineEmits<{ open: []; act: [Act]; gone: [] }>()
/** What is asked about in the panel below. */
const asking = ref<'erase' | 'join' | null>(null)
const acts = computed(() => actsOn(props.person, props.hasMail))
</script>

<template>
  <li :class="{ away: person.state === 'deactivated' }">
    <button type="button" class="row" :aria-expanded="opened" @click="emit('open')">
      <b>{{ person.name }}</b>
      <span class="second">{{ person.email }}</span>
      <span>{{ partOf(person) }}</span>
      <span class="second">{{ standingOf(person) }}</span>
    </button>
    <p v-if="opened" class="acts small">
      <button
        v-for="act in acts"
        :key="act.does"
        type="button"
        class="word-button"
        :disabled="busy"
        @click="emit('act', act)"
      >
        {{ act.words }}
      </button>
      <router-link :to="{ name: 'record', query: { person: person.person } }" class="word-button"
        >what they did</router-link
      >
      <a class="word-button" :href="`/api/people/${person.person}/data`" download>save their data</a>
      <button
        v-if="person.state !== 'deactivated'"
        type="button"
        class="word-button"
        :disabled="busy"
        @click="asking = 'join'"
      >
        join with another account
      </button>
      <button v-if="!person.oneself" type="button" class="word-button" :disabled="busy" @click="asking = 'erase'">
        erase
      </button>
      <span v-if="person.oneself" class="second">this is you</span>
      <span v-else-if="person.joinedInto" class="second">everything they did is with {{ person.joinedInto }}</span>
      <span v-else-if="person.state === 'deactivated'" class="second"
        >they cannot sign in; everything they wrote is still there</span
      >
    </p>
    <ErasePanel v-if="opened && asking === 'erase'" :person="person" @close="asking = null" @erased="emit('gone')" />
    <JoinPanel
      v-if="opened && asking === 'join'"
      :person="person"
      :people="people"
      @close="asking = null"
      @joined="emit('gone')"
    />
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) minmax(220px, 1.3fr) minmax(220px, 1.6fr) 210px;
  gap: var(--space-3) var(--space-6);
  width: 100%;
  padding: var(--space-3) 0;
  text-align: left;
}
.row > * {
  overflow-wrap: anywhere;
}
b {
  font-weight: 600;
}
.row:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.away .row b {
  font-weight: 400;
  color: var(--ink-2);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
  padding: 0 0 var(--space-4);
}
.acts > * {
  display: inline-flex;
  align-items: center;
  min-height: 24px;
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
