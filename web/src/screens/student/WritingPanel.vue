<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import ProblemNote from '../../parts/ProblemNote.vue'
import { useWriting } from './useWriting'

/** Where a student writes and hands in; one place on each item. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const { text, write, handIn, takeBack, takingBack, status, away, pressed, problem, outcome, theirs, settle } =
  useWriting(props.section, props.answer.item, () => props.answer)
/** What was handed in is with the teacher: handing in once more is a second thought. */
const wanted = ref(false)
const again = computed(
  () => props.answer.progress !== 'with-teacher' || wanted.value || text.value !== '' || pressed.value !== null,
)
</script>

<template>
  <section v-if="!again" aria-label="Your work" class="writing">
    <h2>Your work</h2>
    <p>
      Handed in {{ answer.history[0]!.at.words }}. Your teacher has it.
      <template v-if="answer.mayWork">
        <button type="button" class="word-button small" :disabled="takingBack" @click="takeBack">take back</button>
        <button type="button" class="word-button small also" @click="wanted = true">hand in again</button>
      </template>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
  <section v-else aria-label="Your work" class="writing">
    <h2>{{ answer.history.some((one) => !one.takenBackAt) ? 'Hand in again' : 'Your work' }}</h2>
    <p v-if="answer.draft?.missedAt" class="accent">
      This was sent, but came {{ answer.draft.missedAt.words }}, after the {{ answer.levels.item.one }} had closed. It
      is kept, and your teacher sees it.
    </p>
    <ProblemNote
      v-if="theirs"
      :problem="{
        status: 409,
        code: 'changed-meanwhile',
        title: 'You wrote something else in the meantime, on another page or device.',
        detail: `There it says: “${theirs.text.slice(0, 200)}”. Both are kept until you choose.`,
      }"
    >
      <v-btn @click="settle(false)">Keep that one</v-btn>
      <v-btn class="meant" @click="settle(true)">Keep this one</v-btn>
    </ProblemNote>
    <label class="field-name" for="writing">Your text</label>
    <v-textarea
      id="writing"
      :model-value="text"
      rows="9"
      maxlength="100000"
      :disabled="pressed !== null || !answer.mayWork"
      @update:model-value="write($event)"
    />
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
.also {
  margin-left: var(--space-5);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
  padding-top: var(--space-4);
}
</style>
