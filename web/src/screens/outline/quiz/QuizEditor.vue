<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, ref, toRef, watch } from 'vue'
import { type Schemas, api, ask } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import { useAnswer } from '../../../foundation/useAnswer'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import TickField from '../../../parts/fields/TickField.vue'
import TryPanel from './TryPanel.vue'
import UnderstoodLines from './UnderstoodLines.vue'

/** The questions of a quiz, as plain text; beside it what is understood of each line. */
const props = defineProps<{ edition: number; item: number; canChange: boolean }>()

const quiz = useAnswer(() => questions.quiz(props.edition, props.item))
const isOpen = ref(false)
/** It is looked at as a student has it. */
const isTried = ref(false)
const text = ref('')
const rules = ref({
  limit: null,
  attempts: 1,
  using: 'best',
  shown: 'at-once',
  outOf: null,
  mixesQuestions: false,
  mixesOptions: false,
} as Schemas['QuizRules'] & { mixesQuestions: boolean; mixesOptions: boolean })
const version = ref(0)
const lines = ref<Schemas['QuizLine'][]>([])
const count = ref<number | null>(null)

const hasQuestions = computed(() => (quiz.data.value?.text ?? '') !== '')
const summary = computed(() => quiz.data.value?.lines.filter((line) => line.words.startsWith('Question')) ?? [])

function open(): void {
  const now = quiz.data.value
  if (!now) return
  text.value = now.text
  rules.value = {
    ...now.rules,
    mixesQuestions: now.rules.mixesQuestions ?? false,
    mixesOptions: now.rules.mixesOptions ?? false,
  }
  isTried.value = false
  version.value = now.version
  lines.value = now.lines
  isOpen.value = true
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
  if (!found || typed !== text.value) return
  lines.value = found.lines
  count.value = found.questions
})

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-quiz')
const faults = computed(() => lines.value.filter((line) => line.isFault).length)
const firstFault = computed(() => {
  const at = lines.value.findIndex((line) => line.isFault)
  return at < 0 ? '' : `Line ${at + 1}: ${lines.value[at]!.words}`
})
const isSame = computed(
  () => text.value === quiz.data.value?.text && JSON.stringify(rules.value) === JSON.stringify(quiz.data.value?.rules),
)
const request = computed(() =>
  !isOpen.value || faults.value > 0 || isSame.value || settled.value !== text.value
    ? null
    : { item: props.item, text: text.value, rules: rules.value, version: version.value },
)
const reach = useReach(request, write.preview)

async function save(): Promise<void> {
  if (!request.value) return
  await write.run(request.value).then(
    async () => {
      isOpen.value = false
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
        </p>
        <TryPanel
          v-if="isTried"
          :edition="edition"
          :text="quiz.data.value.text"
          :rules="quiz.data.value.rules"
          @close="isTried = false"
        />
      </template>
    </template>
    <TryPanel v-else-if="isTried" :edition="edition" :text="text" :rules="rules" @close="isTried = false" />
    <form
      v-else
      class="editor"
      aria-label="The questions of this quiz"
      @submit.prevent="save"
      @keydown.esc.stop="isOpen = false"
    >
      <p class="small second">
        Leave an empty line between questions. Under each, + marks a right answer and - a wrong one; or write true,
        false, “number: 12 ± 1 km”, “text: cirrus”, 1. 2. 3. for an order, or “left = right” for pairs, or “read” for a
        text that you read yourself. [Brackets] make a gap in what is asked. “page” by itself begins a new page, and “4
        of the next 9” draws that many of the questions below for each attempt.
      </p>
      <div class="halves">
        <v-textarea
          v-model="text"
          class="typed"
          rows="18"
          no-resize
          maxlength="200000"
          aria-label="Questions as plain text"
          spellcheck="false"
        />
        <UnderstoodLines :lines="lines" />
      </div>
      <p class="line">
        <span>Time limit</span>
        <NumberField v-model="rules.limit" label="Minutes an attempt may take" :min="1" :max="600" optional />
        <span>minutes, empty for none.</span>
        <span class="next">Attempts</span>
        <NumberField v-model="rules.attempts" label="Attempts a student has" :min="1" :max="50" optional />
        <span>empty for any number, and</span>
        <ChoiceField
          v-model="rules.using"
          label="Which attempt counts"
          :choices="[
            { value: 'best', title: 'the best counts' },
            { value: 'latest', title: 'the latest counts' },
            { value: 'mean', title: 'the mean counts' },
          ]"
        />
      </p>
      <p class="line">
        <span>Students see their score and the answers</span>
        <ChoiceField
          v-model="rules.shown"
          label="When students see their score and the answers"
          :choices="[
            { value: 'at-once', title: 'at once' },
            { value: 'after-due', title: 'once it is past its due date' },
            { value: 'never', title: 'never' },
          ]"
        />
      </p>
      <p class="line">
        <span>For each attempt in another order:</span>
        <TickField v-model="rules.mixesQuestions" label="the questions of a page" />
        <TickField v-model="rules.mixesOptions" label="the answers to choose from" />
      </p>
      <ProblemNote v-if="write.problem.value" :problem="write.problem.value" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="!request || write.busy.value">Save the questions</v-btn>
        <v-btn :disabled="text.trim() === '' || faults > 0" @click="isTried = true">Try it as a student</v-btn>
        <v-btn @click="isOpen = false">Leave them as they are</v-btn>
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
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-6);
}
.next {
  margin-left: var(--space-5);
}
.typed :deep(textarea) {
  font-family: var(--face-figures, ui-monospace, monospace);
}
</style>
