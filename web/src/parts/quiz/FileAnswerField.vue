<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import FileLine from '../files/FileLine.vue'
import FilePicker from '../files/FilePicker.vue'
import type { QuizAnswer } from './answers'

/** Where a question is answered with a file: the one that was sent, and another in its place. */
const props = defineProps<{ question: Schemas['PutQuestion']; disabled?: boolean; name: string }>()
const answer = defineModel<QuizAnswer>({ required: true })

/** What it is called: as it was read, or as it was just sent. */
const called = computed(() =>
  typeof answer.value === 'string'
    ? answer.value
    : answer.value !== null && typeof answer.value === 'object' && !Array.isArray(answer.value)
      ? (answer.value.name ?? '')
      : '',
)
const kept = computed(() => (props.question.file?.name === answer.value ? props.question.file : null))
</script>

<template>
  <div class="file" role="group" :aria-label="name">
    <FileLine v-if="kept" :file="kept" />
    <p v-else-if="called">
      <b>{{ called }}</b>
    </p>
    <template v-if="!disabled">
      <p v-if="called">
        <button type="button" class="word-button small" @click="answer = null">remove it</button>
      </p>
      <FilePicker
        :label="`${name}: a file`"
        :words="called ? 'Another file in its place' : 'Choose a file'"
        one
        @sent="(files) => files[0] && (answer = { upload: files[0].upload, name: files[0].name })"
      />
    </template>
  </div>
</template>

<style scoped>
.file {
  display: grid;
  gap: var(--space-3);
}
</style>
