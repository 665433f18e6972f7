<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import ChoiceField from '../fields/ChoiceField.vue'
import OneOfField from '../fields/OneOfField.vue'
import TickField from '../fields/TickField.vue'
import WordField from '../fields/WordField.vue'
import FileAnswerField from './FileAnswerField.vue'
import type { QuizAnswer } from './answers'

/** Where a question is answered, by its kind. */
const props = defineProps<{ question: Schemas['PutQuestion']; disabled?: boolean; name: string }>()
const answer = defineModel<QuizAnswer>({ required: true })

const listed = computed(() => (Array.isArray(answer.value) ? answer.value : []))
const matched = computed(() =>
  answer.value !== null && typeof answer.value === 'object' && !Array.isArray(answer.value) ? answer.value : {},
)
/** Things to put in order: as they were put, then what was not placed. */
const order = computed(() => {
  const placed = listed.value.filter((id): id is string => id !== null)
  return [...placed, ...props.question.options.map(({ id }) => id).filter((id) => !placed.includes(id))]
})
const wordsOf = (id: string) => props.question.options.find((option) => option.id === id)?.words ?? ''

function pick(id: string, wanted: boolean): void {
  answer.value = props.question.options
    .map((option) => option.id)
    .filter((one) => (one === id ? wanted : listed.value.includes(one)))
}
function move(at: number, by: -1 | 1): void {
  const next = [...order.value]
  const [thing] = next.splice(at, 1)
  next.splice(at + by, 0, thing!)
  answer.value = next
}
function match(left: string, right: string | null): void {
  const next = new Map(Object.entries(matched.value))
  if (right === null) next.delete(left)
  else next.set(left, right)
  answer.value = Object.fromEntries(next)
}
function fill(at: number, given: string | null): void {
  answer.value = props.question.gaps.map((_, n) => (n === at ? given : (listed.value[n] ?? null)))
}
</script>

<template>
  <OneOfField
    v-if="question.kind === 'one'"
    :model-value="typeof answer === 'string' ? answer : null"
    class="below"
    :label="name"
    :disabled="disabled"
    :choices="question.options.map(({ id, words }) => ({ value: id, title: words }))"
    @update:model-value="answer = $event"
  />
  <OneOfField
    v-else-if="question.kind === 'truth'"
    :model-value="typeof answer === 'boolean' ? answer : null"
    :label="name"
    :disabled="disabled"
    :choices="[
      { value: true, title: 'true' },
      { value: false, title: 'false' },
    ]"
    @update:model-value="answer = $event"
  />
  <ul v-else-if="question.kind === 'many'" class="plain" :aria-label="name">
    <li v-for="option in question.options" :key="option.id">
      <TickField
        :model-value="listed.includes(option.id)"
        :label="option.words"
        :disabled="disabled"
        @update:model-value="pick(option.id, $event === true)"
      />
    </li>
  </ul>
  <ol v-else-if="question.kind === 'order'" class="order" :aria-label="name">
    <li v-for="(id, at) in order" :key="id">
      <span>{{ wordsOf(id) }}</span>
      <span v-if="!disabled" class="moves">
        <button
          type="button"
          class="word-button small"
          :disabled="at === 0"
          :aria-label="`up: ${wordsOf(id)}`"
          @click="move(at, -1)"
        >
          up
        </button>
        <button
          type="button"
          class="word-button small"
          :disabled="at === order.length - 1"
          :aria-label="`down: ${wordsOf(id)}`"
          @click="move(at, 1)"
        >
          down
        </button>
      </span>
    </li>
    <li v-if="!disabled && listed.length === 0" class="keep">
      <button type="button" class="word-button small" @click="answer = order">this is the right order</button>
    </li>
  </ol>
  <ul v-else-if="question.kind === 'match'" class="plain" :aria-label="name">
    <li v-for="left in question.options" :key="left.id" class="pair">
      <span>{{ left.words }}</span>
      <ChoiceField
        :model-value="matched[left.id] ?? null"
        :label="`What belongs to ${left.words}`"
        :disabled="disabled"
        :choices="[
          { value: null, title: 'choose' },
          ...question.rights.map(({ id, words }) => ({ value: id, title: words })),
        ]"
        @update:model-value="match(left.id, $event)"
      />
    </li>
  </ul>
  <ul v-else-if="question.kind === 'gaps'" class="plain" :aria-label="name">
    <li v-for="(gap, at) in question.gaps" :key="at" class="pair">
      <span class="second">[{{ at + 1 }}]</span>
      <ChoiceField
        v-if="gap.kind === 'one'"
        :model-value="listed[at] ?? null"
        :label="`Gap ${at + 1}`"
        :disabled="disabled"
        :choices="[
          { value: null, title: 'choose' },
          ...gap.options.map(({ id, words }) => ({ value: id, title: words })),
        ]"
        @update:model-value="fill(at, $event)"
      />
      <WordField
        v-else
        :model-value="listed[at] ?? ''"
        :label="`Gap ${at + 1}`"
        :disabled="disabled"
        @update:model-value="fill(at, $event)"
      />
    </li>
  </ul>
  <v-textarea
    v-else-if="question.kind === 'free'"
    :model-value="typeof answer === 'string' ? answer : ''"
    rows="4"
    auto-grow
    :aria-label="name"
    :disabled="disabled"
    maxlength="10000"
    @update:model-value="answer = $event"
  />
  <FileAnswerField
    v-else-if="question.kind === 'file'"
    v-model="answer"
    :question="question"
    :name="name"
    :disabled="disabled"
  />
  <WordField
    v-else
    class="short"
    :model-value="typeof answer === 'string' ? answer : ''"
    :label="name"
    :placeholder="question.kind === 'number' ? 'a number, with its unit if it has one' : ''"
    :disabled="disabled"
    :maxlength="1000"
    @update:model-value="answer = $event"
  />
</template>

<style scoped>
.plain {
  list-style: none;
  display: grid;
  gap: var(--space-2);
}
.pair {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.pair > span:first-child {
  min-width: 120px;
}
.order {
  display: grid;
  gap: var(--space-2);
  padding-left: var(--space-7);
}
.order li > span:first-child {
  display: inline-block;
  min-width: 200px;
}
.order .keep {
  list-style: none;
}
.moves {
  display: inline-flex;
  gap: var(--space-4);
}
.short {
  width: 100%;
  max-width: 420px;
}
.below :deep(.v-selection-control-group) {
  flex-direction: column;
}
</style>
