<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import ProblemNote from '../../parts/ProblemNote.vue'
import { useWriting } from './useWriting'

/** Where a student writes and hands in; one place on each item. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const { text, write, handIn, status, away, pressed, problem, outcome, theirs, settle } = useWriting(
  props.section,
  props.answer.item,
  () => props.answer,
)
</script>

<template>
  <section aria-label="Your work" class="writing">
    <h2>{{ answer.history.length ? 'Hand in again' : 'Your work' }}</h2>
    <p v-if="answer.draft?.missedAt" class="accent">
      This was sent, but came {{ answer.draft.missedAt.words }}, after the {{ answer.levels.item.one }} had closed. It
      is kept, and your teacher sees it.
    </p>
    <ProblemNote
      v-if="theirs"
      :problem="{
        status: 409,
        code: 'changed-meanwhile',
        title: 'You have written something else meanwhile, on another page or device.',
        detail: `There it says: “${theirs.text.slice(0, 200)}”. Both are kept until you choose.`,
      }"
    >
      <v-btn @click="settle(false)">Go on with that</v-btn>
      <v-btn class="meant" @click="settle(true)">Go on with this</v-btn>
    </ProblemNote>
    <label class="field-name" for="writing">Your text</label>
    <textarea
      id="writing"
      :value="text"
      rows="9"
      maxlength="100000"
      :disabled="pressed !== null || !answer.mayWork"
      @input="write(($event.target as HTMLTextAreaElement).value)"
    ></textarea>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="ways">
      <v-btn class="meant" :disabled="pressed !== null || text.trim() === '' || !answer.mayWork" @click="handIn"
        >Hand in</v-btn
      >
      <span class="small" :class="{ accent: away }" role="status">
        <template v-if="outcome?.handedIn">Handed in {{ outcome.at.words }}.</template>
        <template v-else-if="outcome"
          >It came after the {{ answer.levels.item.one }} had closed. Your text is kept, and your teacher sees
          it.</template
        >
        <template v-else>{{ status }}</template>
      </span>
    </p>
  </section>
</template>

<style scoped>
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
  margin-bottom: var(--space-4);
}
.writing {
  max-width: 720px;
}
textarea {
  width: 100%;
  font: 400 var(--size-large) / 1.5 var(--face-text);
  color: var(--ink);
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--line);
  border-radius: var(--radius-0);
  padding: var(--space-5) var(--space-6);
  resize: vertical;
}
textarea:focus-visible {
  outline-offset: 0;
}
textarea:disabled {
  color: var(--ink-2);
  background: var(--paper);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
  padding-top: var(--space-4);
}
</style>
