<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import FormattedText from '../FormattedText.vue'
import QuestionField from './QuestionField.vue'
import type { QuizAnswer } from './answers'

/** What was answered, and how each answer was marked. */
defineProps<{ lines: readonly Schemas['MarkedAnswerLine'][] }>()
</script>

<template>
  <ol class="ruled answers">
    <li v-for="(line, at) in lines" :key="line.question.id">
      <p class="line">
        <span class="code">{{ at + 1 }}</span>
        <strong>{{ line.points ?? 'waiting to be read' }}</strong>
        <span v-if="line.isFaulty" class="small">This question was faulty: everyone gets its points.</span>
        <span v-else-if="!line.isFull && line.right" class="small">right: {{ line.right }}</span>
      </p>
      <FormattedText :html="line.question.html" />
      <p v-if="line.question.answer == null" class="small second">No answer.</p>
      <QuestionField
        v-else
        :model-value="(line.question.answer ?? null) as QuizAnswer"
        :question="line.question"
        :name="`Your answer to question ${at + 1}`"
        disabled
      />
      <p v-if="line.note" class="small">{{ line.note }}</p>
      <p v-if="line.said" class="said">{{ line.said }}</p>
      <p v-for="reply in line.replies" :key="reply" class="small">{{ reply }}</p>
      <p v-if="line.after" class="small">{{ line.after }}</p>
    </li>
  </ol>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
.said {
  padding-left: var(--space-5);
  border-left: var(--stroke-strong) solid var(--accent);
  white-space: pre-wrap;
}
.answers {
  list-style: none;
}
.answers li {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-4) 0;
}
</style>
