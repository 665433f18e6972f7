<script setup lang="ts">
import { computed, nextTick, shallowReactive, useTemplateRef } from 'vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { type AnswerForm, type QuestionForm, addAnswer, onlyRight } from './rows'

/** The answers of a question, one a row: to choose from, to put in order, or to match. */
const props = defineProps<{ name: string }>()
const question = defineModel<QuestionForm>({ required: true })

const kind = computed(() => question.value.kind)
const list = useTemplateRef<HTMLElement>('list')
const MOST = 50
/** Whether one of them, or several, is chosen: then something may be said to whoever chooses it. */
const isChosen = computed(() => kind.value === 'one' || kind.value === 'many')
/** Those for which something is about to be written. */
const open = shallowReactive(new Set<AnswerForm>())
async function sayTo(answer: AnswerForm, at: number): Promise<void> {
  open.add(answer)
  await nextTick()
  list.value?.querySelectorAll('li')[at]?.querySelector<HTMLInputElement>('.reply input')?.focus()
}

async function add(): Promise<void> {
  if (question.value.answers.length >= MOST) return
  addAnswer(question.value)
  await nextTick()
  focus(question.value.answers.length - 1)
}
const focus = (at: number) => list.value?.querySelectorAll<HTMLInputElement>('.said input')[at]?.focus()

function move(at: number, by: -1 | 1): void {
  const [answer] = question.value.answers.splice(at, 1)
  question.value.answers.splice(at + by, 0, answer!)
}
function onEnter(at: number): void {
  if (at === question.value.answers.length - 1) void add()
  else focus(at + 1)
}
</script>

<template>
  <ol ref="list" class="answers" :aria-label="`Answers to ${props.name}`">
    <li v-for="(answer, at) in question.answers" :key="at">
      <TickField
        v-if="kind === 'many'"
        v-model="answer.isRight"
        label="right"
        :aria-label="`right: answer ${at + 1} to ${name}`"
      />
      <TickField
        v-else-if="kind === 'one'"
        :model-value="answer.isRight"
        label="right"
        :aria-label="`right: answer ${at + 1} to ${name}`"
        @update:model-value="onlyRight(question, at)"
      />
      <span v-else class="second">{{ kind === 'order' ? `${at + 1}.` : '' }}</span>
      <span class="said" @keydown.enter.prevent="onEnter(at)">
        <WordField
          v-model="answer.words"
          :label="kind === 'match' ? `What ${at + 1} of ${name} is matched` : `Answer ${at + 1} to ${name}`"
          :placeholder="kind === 'match' ? 'thing' : 'answer'"
          :maxlength="1000"
        />
      </span>
      <template v-if="kind === 'match'">
        <span class="second">=</span>
        <WordField v-model="answer.match" :label="`Match ${at + 1} of ${name}`" placeholder="match" :maxlength="1000" />
      </template>
      <span class="acts small">
        <button
          v-if="isChosen && !answer.reply && !open.has(answer)"
          type="button"
          class="word-button"
          :aria-label="`add feedback to answer ${at + 1} to ${name}`"
          @click="sayTo(answer, at)"
        >
          add feedback
        </button>
        <button
          v-if="at > 0"
          type="button"
          class="word-button"
          :aria-label="`up: answer ${at + 1} to ${name}`"
          @click="move(at, -1)"
        >
          up
        </button>
        <button
          v-if="question.answers.length > 1"
          type="button"
          class="word-button"
          :aria-label="`remove answer ${at + 1} to ${name}`"
          @click="question.answers.splice(at, 1)"
        >
          remove
        </button>
      </span>
      <span v-if="isChosen && (answer.reply || open.has(answer))" class="reply">
        <span class="small second">feedback for whoever chooses it</span>
        <WordField
          v-model="answer.reply"
          :label="`Feedback for whoever chooses answer ${at + 1} to ${name}`"
          :maxlength="1000"
        />
      </span>
    </li>
    <li v-if="question.answers.length < MOST" class="more">
      <button type="button" class="word-button small" @click="add">
        {{ kind === 'match' ? 'Add a pair' : 'Add an answer' }}
      </button>
      <span v-if="kind === 'match'" class="small second">
        Leave the left side empty for a match that belongs to nothing.</span
      >
    </li>
  </ol>
</template>

<style scoped>
.answers {
  list-style: none;
  display: grid;
  gap: var(--space-2);
}
.answers li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4);
}
.said {
  flex: 1 1 220px;
  max-width: 460px;
}
.said :deep(.v-input) {
  max-width: none;
  width: 100%;
}
.reply {
  flex: 1 0 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-1) var(--space-4);
  padding-left: 72px;
}
.reply :deep(.v-input) {
  flex: 1 1 320px;
  max-width: 620px;
}
.acts {
  display: flex;
  gap: var(--space-4);
  min-width: 96px;
}
</style>
