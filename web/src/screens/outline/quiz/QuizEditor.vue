<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'
import { type Schemas, api, ask } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import { useAnswer } from '../../../foundation/useAnswer'
import ProblemNote from '../../../parts/ProblemNote.vue'
import QuestionsOut from './QuestionsOut.vue'
import RulesFields from './RulesFields.vue'
import TryPanel from './TryPanel.vue'
import { dropDraft, keepDraft, keptDraft } from './questionDraft'
import PlainQuestions from './PlainQuestions.vue'
import QuestionFile from './QuestionFile.vue'
import QuestionRows from './QuestionRows.vue'
import { type QuestionForm, freshQuestion, isBegun, usualRules } from './rows'

/** The questions of a quiz: in rows, or as plain text with what is understood of each line beside it. */
const props = defineProps<{ edition: number; item: number; canChange: boolean }>()

const quiz = useAnswer(() => questions.quiz(props.edition, props.item))
const isOpen = ref(false)
/** It is looked at as a student has it. */
const isTried = ref(false)
const text = ref('')
/** The questions in rows; null: they are written as plain text. */
const rows = ref<QuestionForm[] | null>(null)
/** What the server understood last, and of which text. */
const understood = ref<Schemas['UnderstoodQuiz'] | null>(null)
const understoodText = ref('')
/** A picture for a question is being uploaded. */
const isSending = ref(false)
const rules = ref(usualRules())
const version = ref(0)
const lines = ref<Schemas['QuizLine'][]>([])

const hasQuestions = computed(() => (quiz.data.value?.text ?? '') !== '')
const summary = computed(() => quiz.data.value?.lines.filter((line) => line.words.startsWith('Question')) ?? [])

function open(): void {
  const now = quiz.data.value
  if (!now) return
  text.value = now.text
  rows.value = now.rows.length ? now.rows.map((row) => ({ ...row })) : [freshQuestion()]
  understood.value = null
  taken.value = null
  rules.value = {
    ...now.rules,
    mixesQuestions: now.rules.mixesQuestions ?? false,
    mixesOptions: now.rules.mixesOptions ?? false,
    outOf: now.rules.outOf ?? null,
    scoreShown: now.rules.scoreShown ?? now.rules.shown,
  }
  isTried.value = false
  version.value = now.version
  lines.value = now.lines
  begun.value = now.text
  const draft = keptDraft(props.edition, props.item)
  kept.value = draft === null ? null : draft.from === now.text ? 'same' : 'changed'
  if (draft) {
    begun.value = draft.from
    text.value = draft.text
    rules.value = draft.rules
    rows.value = null
    isToBeRows.value = draft.inRows
  }
  isOpen.value = true
}
/** What was written is dropped, and the questions stay as they are. */
function leave(): void {
  dropDraft(props.edition, props.item)
  isOpen.value = false
}

/** What is understood follows what is typed. */
const settled = refDebounced(text, 250)
watch(settled, async (typed) => {
  const found = await ask(
    api.POST('/api/editions/{edition}/understand-quiz', {
      params: { path: { edition: props.edition } },
      body: { text: typed },
    }),
  ).catch(() => null)
  // Whoever types on goes on with what stands there.
  if (typed !== text.value) isToBePlain.value = isToBeRows.value = false
  if (!found || typed !== text.value) return
  lines.value = found.lines
  understood.value = found
  understoodText.value = typed
  if (isToBePlain.value && rows.value === null) text.value = found.text ?? text.value
  if (isToBeRows.value && found.rows) rows.value = found.rows
  isToBePlain.value = isToBeRows.value = false
})

/** Rows have just become text: once they are understood, they are written as one would write them. */
const isToBePlain = ref(false)
/** What this device kept was written in rows: once it is understood, it is again. */
const isToBeRows = ref(false)
/** The questions as they stood when one began to write. */
const begun = ref('')
/** What is being written was begun earlier and kept on this device, and whether the questions were changed since. */
const kept = ref<'same' | 'changed' | null>(null)
/** What came from a package last. */
const taken = ref<Schemas['TakenQuestions'] | null>(null)
const takenWords = computed(() => {
  const from = taken.value?.title ? ` from “${taken.value.title}”` : ''
  return taken.value?.leftOut.length
    ? `The questions${from} are below. This did not fit:`
    : `The questions${from} are below, to be looked at and saved.`
})
/** They come after what is there; what is not understood of them stays as plain text. */
function take(questions: Schemas['TakenQuestions']): void {
  taken.value = questions
  const isEmpty = rows.value ? !rows.value.some(isBegun) : text.value.trim() === ''
  if (rows.value && questions.rows) rows.value = [...(isEmpty ? [] : rows.value), ...questions.rows]
  else {
    text.value = isEmpty ? questions.text : `${text.value}\n\n${questions.text}`
    rows.value = null
  }
  if (isEmpty && questions.limit) rules.value.limit = questions.limit
}

/** Both ways of writing say the same; what is not understood stays as plain text. */
function asText(): void {
  rows.value = null
  if (understoodText.value === text.value && understood.value?.text) text.value = understood.value.text
  else isToBePlain.value = true
}
function inRows(): void {
  if (text.value.trim() === '') rows.value = [freshQuestion()]
  else if (understood.value?.rows) rows.value = understood.value.rows
}
const canBeRows = computed(
  () => text.value.trim() === '' || (understood.value?.rows != null && understoodText.value === text.value),
)

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-quiz')
const faults = computed(() => lines.value.filter((line) => line.isFault).length)
const firstFault = computed(() => {
  const at = lines.value.findIndex((line) => line.isFault)
  return at < 0 || rows.value ? '' : `Line ${at + 1}: ${lines.value[at]!.words}`
})
const isSame = computed(
  () =>
    (understood.value?.text ?? text.value) === quiz.data.value?.text &&
    JSON.stringify(rules.value) === JSON.stringify(quiz.data.value?.rules),
)
const request = computed(() =>
  !isOpen.value || isSending.value || faults.value > 0 || isSame.value || understoodText.value !== text.value
    ? null
    : { item: props.item, text: text.value, rules: rules.value, version: version.value },
)
const reach = useReach(request, write.preview)

// Closed or reloaded meanwhile, nothing of it is lost.
watch(
  [text, rules, isSame],
  () => {
    if (!isOpen.value || isToBeRows.value) return
    if (isSame.value) dropDraft(props.edition, props.item)
    else
      keepDraft(props.edition, props.item, {
        from: begun.value,
        text: text.value,
        rules: rules.value,
        inRows: rows.value !== null,
      })
  },
  { deep: true },
)

async function save(): Promise<void> {
  if (!request.value) return
  await write.run(request.value).then(
    async () => {
      leave()
      await quiz.refetch()
    },
    () => undefined,
  )
}
</script>

<template>
  <section class="quiz" aria-label="Questions">
    <p v-if="quiz.problem.value && !quiz.data.value" class="small">{{ quiz.problem.value.title }}</p>
    <p v-else-if="!quiz.data.value" class="small" role="status">Reading the questions …</p>
    <template v-else-if="!isOpen">
      <p v-if="!hasQuestions" class="line">
        <span class="second">No questions yet, so students have nothing to do here.</span>
        <button v-if="canChange" type="button" class="word-button" @click="open">write the questions</button>
      </p>
      <template v-else>
        <ol class="ruled list">
          <li v-for="(one, at) in summary" :key="at">
            <span>{{ one.text }}</span>
            <span class="small second">{{ one.words.replace(/^Question \d+: /, '') }}</span>
          </li>
        </ol>
        <p v-if="canChange && !isTried" class="ways">
          <button type="button" class="word-button" @click="open">change the questions</button>
          <button type="button" class="word-button" @click="isTried = true">try it as a student</button>
          <QuestionsOut :edition="edition" :item="item" :left-out="quiz.data.value.leftOut" />
        </p>
        <TryPanel
          v-if="isTried"
          :edition="edition"
          :item="item"
          :text="quiz.data.value.text"
          :rules="quiz.data.value.rules"
          @close="isTried = false"
        />
      </template>
    </template>
    <TryPanel
      v-else-if="isTried"
      :edition="edition"
      :item="item"
      :text="text"
      :rules="rules"
      @close="isTried = false"
    />
    <form
      v-else
      class="editor"
      aria-label="The questions of this quiz"
      @submit.prevent="save"
      @keydown.esc.stop="isOpen = false"
    >
      <p class="line either" role="group" aria-label="How the questions are written">
        <button type="button" class="word-button" :aria-pressed="rows !== null" :disabled="!canBeRows" @click="inRows">
          in rows
        </button>
        <button type="button" class="word-button" :aria-pressed="rows === null" @click="asText">as plain text</button>
        <QuestionFile :edition="edition" @taken="take" />
      </p>
      <p v-if="kept" class="small" role="status">
        This is what you wrote earlier and have not saved yet.
        {{ kept === 'changed' ? 'The questions have been changed since; saving puts yours in their place.' : '' }}
      </p>
      <div v-if="taken" role="status">
        <p>{{ takenWords }}</p>
        <ul v-if="taken.leftOut.length" class="left">
          <li v-for="words in taken.leftOut" :key="words">{{ words }}</li>
        </ul>
      </div>
      <QuestionRows
        v-if="rows"
        v-model:rows="rows"
        v-model:text="text"
        :lines="understoodText === text ? lines : []"
        @busy="isSending = $event"
      />
      <PlainQuestions v-else v-model="text" :lines="lines" />
      <RulesFields v-model="rules" />
      <ProblemNote v-if="write.problem.value" :problem="write.problem.value" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="!request || write.busy.value">Save the questions</v-btn>
        <v-btn :disabled="text.trim() === '' || faults > 0" @click="isTried = true">Try it as a student</v-btn>
        <v-btn @click="leave">Leave them as they are</v-btn>
        <span class="small" role="status">{{ firstFault || (reach ?? '') }}</span>
      </p>
    </form>
  </section>
</template>

<style scoped>
.quiz {
  display: grid;
  gap: var(--space-4);
}
.list {
  list-style-position: inside;
}
.list li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
.list li span:last-child {
  flex: none;
}
.left {
  list-style: disc;
  padding-left: var(--space-6);
}
.either [aria-pressed='true'] {
  font-weight: 700;
  text-decoration-thickness: var(--stroke-strong);
}
</style>
