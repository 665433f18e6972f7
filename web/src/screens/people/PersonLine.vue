<script setup lang="ts">
import { computed } from 'vue'
import { type Act, type PersonRow, actsOn, partOf, standingOf } from './people'

/** One person with an account; opened, what the office can do with it stands under the line. */
const props = defineProps<{ person: PersonRow; opened: boolean; busy: boolean }>()
const emit = defineEmits<{ open: []; act: [Act] }>()
const acts = computed(() => actsOn(props.person))
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
      <span v-if="person.oneself" class="second">this is you</span>
      <span v-else-if="person.state === 'deactivated'" class="second"
        >they cannot sign in; everything they wrote is still there</span
      >
    </p>
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
@media (max-width: 900px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
