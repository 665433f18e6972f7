<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Problem, type Schemas, api, ask, problemOf } from '../../../foundation/api/client'
import MarkedAnswers from '../../../parts/quiz/MarkedAnswers.vue'
import QuestionSheet from '../../../parts/quiz/QuestionSheet.vue'
import { type QuizAnswer, unanswered } from '../../../parts/quiz/answers'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** A quiz as a student would have it, to be tried by its team: nothing is kept, and it counts nowhere. */
const props = defineProps<{ edition: number; item: number; text: string; rules: Schemas['QuizRules'] }>()
const emit = defineEmits<{ close: [] }>()

const tried = ref<Schemas['TriedQuiz'] | null>(null)
const problem = ref<Problem | null>(null)
const given = ref<Record<string, QuizAnswer>>({})
const lot = ref('')
const missing = computed(() => unanswered(tried.value?.questions ?? [], given.value))

async function put(isDone: boolean): Promise<void> {
  problem.value = null
  try {
    tried.value = await ask(
      api.POST('/api/editions/{edition}/try-quiz', {
        params: { path: { edition: props.edition } },
        body: {
          item: props.item,
          text: props.text,
          mixesQuestions: props.rules.mixesQuestions ?? false,
          mixesOptions: props.rules.mixesOptions ?? false,
          lot: lot.value,
          answers: (isDone ? given.value : {}) as never,
          isDone,
        },
      }),
    )
  } catch (error) {
    problem.value = problemOf(error)
  }
}
/** As another student: what is drawn and mixed comes anew. */
function begin(): void {
  lot.value = crypto.randomUUID()
  given.value = {}
  void put(false)
}
begin()
</script>

<template>
  <section class="try" aria-label="The quiz as a student has it" @keydown.esc.stop="emit('close')">
    <p class="small second">
      This is how a student has it. Nothing is kept, and it counts nowhere.
      {{ rules.limit ? `A student has ${rules.limit} minutes; here no clock runs.` : '' }}
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <template v-if="tried?.marked">
      <p>
        <strong>{{ tried.score }}</strong>
        <span v-if="tried.toRead" class="small">{{
          ` so far; ${tried.toRead === 1 ? 'one answer waits' : `${tried.toRead} answers wait`} to be read`
        }}</span>
      </p>
      <MarkedAnswers :lines="tried.marked" />
    </template>
    <QuestionSheet
      v-else-if="tried"
      :questions="tried.questions"
      :given="given"
      :disabled="false"
      @answer="(question, value) => (given[question] = value)"
    />
    <p class="ways">
      <v-btn v-if="tried && !tried.marked" class="meant" @click="put(true)">Mark it</v-btn>
      <v-btn @click="begin">Begin again, as another student</v-btn>
      <v-btn @click="emit('close')">Back to the questions</v-btn>
      <span v-if="tried && !tried.marked && missing" class="small" role="status">{{
        missing === 1 ? 'One question has no answer.' : `${missing} questions have no answer.`
      }}</span>
    </p>
  </section>
</template>

<style scoped>
.try {
  display: grid;
  gap: var(--space-5);
  max-width: 760px;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4);
}
</style>
