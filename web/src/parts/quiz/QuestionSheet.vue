<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import FormattedText from '../FormattedText.vue'
import QuestionField from './QuestionField.vue'
import { type QuizAnswer, unanswered } from './answers'

/** The questions that are put to somebody, a page at a time. */
const props = defineProps<{
  questions: readonly Schemas['PutQuestion'][]
  given: Readonly<Record<string, QuizAnswer>>
  disabled: boolean
}>()
const emit = defineEmits<{ answer: [question: string, value: QuizAnswer] }>()

const pages = computed(() => Math.max(1, ...props.questions.map((question) => question.page)))
const page = ref(1)
watch(pages, (now) => (page.value = Math.min(page.value, now)))
const shown = computed(() =>
  props.questions.flatMap((question, at) => (question.page === page.value ? [{ question, at }] : [])),
)
/** What of each page has no answer yet. */
const missingOn = (one: number) =>
  unanswered(
    props.questions.filter((question) => question.page === one),
    props.given,
  )
const hinted = ref<string[]>([])
const top = ref<HTMLElement | null>(null)
function turn(to: number): void {
  page.value = to
  top.value?.scrollIntoView({ block: 'start' })
}
</script>

<template>
  <div ref="top" class="all">
    <nav v-if="pages > 1" class="pages" aria-label="Pages">
      <button
        v-for="one in pages"
        :key="one"
        type="button"
        :aria-current="one === page ? 'page' : undefined"
        @click="turn(one)"
      >
        page {{ one }}
        <span class="small second">{{ missingOn(one) ? `${missingOn(one)} open` : 'answered' }}</span>
      </button>
    </nav>
    <fieldset v-for="{ question, at } in shown" :key="question.id" class="question">
      <legend>
        <span class="code">{{ at + 1 }}</span>
        <span class="small second"
          >{{ question.points }} {{ question.points === '1' ? 'point' : 'points'
          }}{{ question.isExtra ? ', a bonus' : '' }}</span
        >
      </legend>
      <FormattedText :html="question.html" />
      <QuestionField
        :model-value="given[question.id] ?? null"
        :question="question"
        :name="`Answer to question ${at + 1}`"
        :disabled="disabled"
        @update:model-value="emit('answer', question.id, $event)"
      />
      <p v-if="question.hint" class="small">
        <template v-if="hinted.includes(question.id)">{{ question.hint }}</template>
        <button v-else type="button" class="word-button small" @click="hinted.push(question.id)">a hint</button>
      </p>
    </fieldset>
    <p v-if="pages > 1" class="turns">
      <v-btn v-if="page > 1" @click="turn(page - 1)">Page {{ page - 1 }}</v-btn>
      <v-btn v-if="page < pages" @click="turn(page + 1)">On to page {{ page + 1 }}</v-btn>
    </p>
  </div>
</template>

<style scoped>
.all {
  display: grid;
  gap: var(--space-6);
  width: 100%;
  min-width: 0;
}
.pages,
.turns {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
}
.pages button {
  display: inline-flex;
  align-items: baseline;
  gap: var(--space-3);
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-strong) solid transparent;
}
.pages [aria-current] {
  border-color: var(--ink);
}
.question {
  display: grid;
  gap: var(--space-4);
  width: 100%;
  min-width: 0;
  margin: 0;
  border: 0;
  padding: 0 0 var(--space-5);
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.question legend {
  display: flex;
  align-items: baseline;
  gap: var(--space-4);
  padding: 0;
}
</style>
