<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { ordinal } from '../../../foundation/words'
import MarkedAnswers from '../../../parts/quiz/MarkedAnswers.vue'

/** An attempt that is over: how it went, question by question where that is shown. */
const props = defineProps<{ attempt: Schemas['DoneAttempt']; of: number; shown: string; open: boolean }>()

const isOpen = ref(props.open)
const hidden: Record<string, string> = {
  'after-due': 'You’ll see how each answer was marked once this is past its due date.',
  never: 'This quiz doesn’t show how answers were marked.',
}
</script>

<template>
  <section class="attempt" :aria-label="`Attempt ${attempt.n}`">
    <p class="line">
      <strong>{{ of > 1 ? `Your ${ordinal(attempt.n)} attempt` : 'Your attempt' }}</strong>
      <span v-if="attempt.score">{{ attempt.score }}{{ attempt.toRead ? ' so far' : '' }}</span>
      <span v-if="attempt.toRead" class="small">{{
        attempt.toRead === 1 ? 'one answer is still to be read' : `${attempt.toRead} answers are still to be read`
      }}</span>
      <span class="small second">{{ attempt.byClock ? 'time ran out' : 'handed in' }} {{ attempt.endedAt.words }}</span>
      <button
        v-if="attempt.questions"
        type="button"
        class="word-button small"
        :aria-expanded="isOpen"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'fold' : 'show the answers' }}
      </button>
    </p>
    <p v-if="attempt.late" class="small">
      {{
        attempt.late === 1
          ? 'One answer came in after time was up. It is kept, but doesn’t count unless your teacher says so.'
          : `${attempt.late} answers came in after time was up. They are kept, but don’t count unless your teacher says so.`
      }}
    </p>
    <p v-if="!attempt.questions" class="small second">{{ hidden[shown] }}</p>
    <MarkedAnswers v-else-if="isOpen" :lines="attempt.questions" />
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
.attempt {
  width: 100%;
  display: grid;
  gap: var(--space-3);
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-4);
}
</style>
