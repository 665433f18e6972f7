<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import TotalLines from '../../parts/marks/TotalLines.vue'

/** What one student’s total is made of, beside the table. */
const props = defineProps<{ edition: number; student: number }>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.studentTotal(props.edition, props.student, viewpoint.query.value))
</script>

<template>
  <aside class="panel" tabindex="0" aria-label="What the total is made of" @keydown.esc="emit('close')">
    <ProblemNote
      v-if="answer.problem.value && !answer.data.value"
      :problem="answer.problem.value"
      :again="answer.refetch"
    />
    <p v-else-if="!answer.data.value" class="second" role="status">Adding up …</p>
    <template v-else>
      <p class="head">
        <b>{{ answer.data.value.name }}</b>
        <span class="sum">{{ answer.data.value.total.soFar ?? 'nothing counts yet' }}</span>
        <button type="button" class="word-button small" @click="emit('close')">close</button>
      </p>
      <TotalLines :total="answer.data.value.total" />
    </template>
  </aside>
</template>

<style scoped>
.panel {
  position: relative;
  overflow: auto;
  min-height: 0;
  padding: var(--space-6) var(--space-6) var(--space-9);
  background: var(--sheet);
  border-left: var(--stroke-hair) solid var(--accent);
}
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding-bottom: var(--space-3);
}
.head b {
  flex: 1;
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.sum {
  font-weight: 600;
}
</style>
