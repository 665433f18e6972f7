<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import TickField from '../../parts/fields/TickField.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import { joined } from '../../parts/asks'
import type { useScoreWriting } from './useScoreWriting'

/** Under the table while scores are written in it: what would be given, and what opens by it. */
const props = defineProps<{
  section: Schemas['ScoreSection']
  writing: ReturnType<typeof useScoreWriting>
}>()
const emit = defineEmits<{ close: [] }>()

const { unplaced, close, problem, sentence, done, stays, busy, given } = props.writing
const count = computed(() => given.value.scores.length)
/** What will not do; the first few of it. */
const SHOWN = 3
const faults = computed(() => {
  const all = [...given.value.problems, ...unplaced.value]
  return all.length > SHOWN ? [...all.slice(0, SHOWN), `and ${all.length - SHOWN} more like it`] : all
})
/** What taking the last ones back would do; empty: it is not asked for. */
const back = ref('')
async function takeBack(last: string): Promise<void> {
  if (back.value) {
    back.value = ''
    await props.writing.takeBack(last)
  } else back.value = await props.writing.lookBack(last)
}
function leave(): void {
  props.writing.leave()
  emit('close')
}
</script>

<template>
  <aside class="bar" aria-label="Scores that are written" @keydown.esc.stop.prevent="leave">
    <p v-if="faults.length" class="small faults" role="alert">Not taken: {{ faults.join('; ') }}.</p>
    <p v-if="given.more.length" class="small" role="status">
      More than full marks, which count in full: {{ joined(given.more) }}.
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="line">
      <v-btn class="meant" :disabled="count === 0 || busy" @click="writing.give()">{{
        count ? `Give ${counted(count, 'score')}` : 'Give scores'
      }}</v-btn>
      <TickField v-if="stays" v-model="close" label="close what only the earlier score opened" />
      <v-btn @click="leave">{{ count ? 'Leave them as they are' : 'Done' }}</v-btn>
      <span class="small said" role="status">{{
        sentence ||
        done ||
        'Write scores into the table, or paste a column from a spreadsheet into its first cell. With names beside them, scores find their students.'
      }}</span>
    </p>
    <p v-if="section.last && count === 0" class="small line">
      <span
        >Last given here: {{ counted(section.last.scores, 'score') }} by {{ section.last.by }},
        {{ section.last.at.words }}.</span
      >
      <button type="button" class="word-button" :disabled="busy" @click="takeBack(section.last.key)">
        {{ back ? 'Yes, take' : 'take' }} {{ section.last.scores === 1 ? 'it' : 'them' }} back
      </button>
      <template v-if="back">
        <button type="button" class="word-button" @click="back = ''">
          leave {{ section.last.scores === 1 ? 'it' : 'them' }}
        </button>
        <span role="status">{{ back }}</span>
      </template>
    </p>
  </aside>
</template>

<style scoped>
.bar {
  display: grid;
  gap: var(--space-4);
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.said {
  max-width: 720px;
}
.faults {
  color: var(--accent);
}
</style>
