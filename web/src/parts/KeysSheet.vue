<script setup lang="ts">
import { useKeyList, useScreenKeys } from '../foundation/useKeys'
import SectionKey from '../look/marks/SectionKey.vue'
import StateMark, { type ItemState } from '../look/marks/StateMark.vue'
import { sectionLines } from '../look/theme'
import TickField from './fields/TickField.vue'

/** The keys of the screen in view, and what the marks mean. */
const shown = defineModel<boolean>({ required: true })

const { keys, letters, setLetters } = useKeyList()
const states: { state: ItemState; words: string }[] = [
  { state: 'open', words: 'open' },
  { state: 'upcoming', words: 'to come' },
  { state: 'locked', words: 'locked: a condition is not met yet' },
  { state: 'kept-back', words: 'kept back' },
  { state: 'overdue', words: 'overdue' },
  { state: 'closed', words: 'closed' },
  { state: 'unpublished', words: 'unpublished' },
  { state: 'not-needed', words: 'not needed here' },
  { state: 'differs', words: 'differs from the course' },
]

const signs: Record<string, string> = {
  ArrowDown: '↓',
  ArrowUp: '↑',
  ArrowLeft: '←',
  ArrowRight: '→',
  'Shift+ArrowDown': 'Shift ↓',
  'Shift+ArrowUp': 'Shift ↑',
  Escape: 'Esc',
  'Ctrl+z': 'Ctrl Z',
  'Ctrl+y': 'Ctrl Y',
}
const spoken = (key: string) => signs[key] ?? key

useScreenKeys([{ key: '?', words: 'this list', run: () => (shown.value = !shown.value) }])
</script>

<template>
  <v-dialog v-model="shown" aria-labelledby="keys-title">
    <div class="sheet">
      <h2 id="keys-title">Keys and marks</h2>
      <div class="columns">
        <dl>
          <template v-for="known in keys" :key="known.key">
            <dt>{{ spoken(known.key) }}</dt>
            <dd>{{ known.words }}</dd>
          </template>
        </dl>
        <ul>
          <li v-for="{ state, words } in states" :key="state"><StateMark :state="state" /> {{ words }}</li>
        </ul>
      </div>
      <p class="sections">
        <SectionKey v-for="letter in Object.keys(sectionLines)" :key="letter" :letter="letter" name="" />
        <span class="small">a section’s line and letter, the same everywhere</span>
      </p>
      <p class="foot">
        <TickField :model-value="letters" label="Single-letter keys" @update:model-value="setLetters(!letters)" />
        <v-btn class="meant" @click="shown = false">Close</v-btn>
      </p>
    </div>
  </v-dialog>
</template>

<style scoped>
h2 {
  font: 560 var(--size-unit) / 1.3 var(--face-display);
  padding-bottom: var(--space-5);
}
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-8);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--space-3) var(--space-6);
  align-content: start;
}
dt {
  font-weight: 650;
}
ul {
  display: grid;
  gap: var(--space-3);
}
li {
  display: flex;
  align-items: center;
  gap: var(--space-4);
}
.sections,
.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-6);
  padding-top: var(--space-6);
}
.foot {
  justify-content: space-between;
}
</style>
