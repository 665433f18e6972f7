<script setup lang="ts">
import { useNow } from '@vueuse/core'
import { computed, reactive, ref, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import ProblemNote from '../../../parts/ProblemNote.vue'
import DoneAttempt from './DoneAttempt.vue'
import { type QuizAnswer, unanswered } from '../../../parts/quiz/answers'
import QuestionSheet from '../../../parts/quiz/QuestionSheet.vue'
import { useQuiz } from './useQuiz'

/** A quiz: begun, answered, handed in, and how it went. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const viewpoint = useViewpoint()
const quiz = useAnswer(() => questions.studentQuiz(props.section, props.answer.item, viewpoint.query.value))
const now = useNow({ interval: 1000 })
const running = computed(() => quiz.data.value?.running ?? null)
const mayAct = computed(() => viewpoint.isOnesOwn.value)
const taking = useQuiz(props.section, props.answer.item, props.answer.student)
const given = reactive<Record<string, QuizAnswer>>({})
const isAsking = ref(false)

// When an attempt comes up, what it holds is taken once; what this device still has goes before it.
watch(
  () => running.value?.n,
  (n) => {
    if (n === undefined || !running.value) return
    for (const question of running.value.questions) given[question.id] = (question.answer ?? null) as QuizAnswer
    if (!mayAct.value) return
    taking.take(n)
    for (const [id, one] of Object.entries(taking.waiting.value)) given[id] = one.answer
  },
  { immediate: true },
)

/** By the server's clock: how long it said there was, less what has gone by here. */
const until = ref<number | null>(null)
watch(
  () => quiz.data.value,
  (read) => {
    const seconds = read?.running?.secondsLeft
    until.value = seconds == null ? null : Date.now() + seconds * 1000
  },
  { immediate: true },
)
const left = computed(() =>
  until.value === null ? null : Math.max(0, Math.ceil((until.value - now.value.getTime()) / 1000)),
)
const leftWords = computed(() => {
  if (left.value === null) return ''
  const minutes = Math.floor(left.value / 60)
  return `${minutes}:${String(left.value % 60).padStart(2, '0')} left`
})
watch(left, (seconds) => {
  if (seconds === 0) setTimeout(() => void quiz.refetch(), 2000)
})

const missing = computed(() => unanswered(running.value?.questions ?? [], given))
const rules = computed(() => {
  const one = quiz.data.value
  if (!one) return ''
  const parts = [
    `${one.questions} ${one.questions === 1 ? 'question' : 'questions'}, ${one.outOf} ${one.outOf === '1' ? 'point' : 'points'}`,
  ]
  if (one.minutes !== null) parts.push(`${Math.round(one.minutes * 10) / 10} minutes from when you begin`)
  if (one.left !== null) parts.push(one.left === 1 ? 'one attempt left' : `${one.left} attempts left`)
  return parts.join(' · ')
})

function set(question: string, value: QuizAnswer): void {
  given[question] = value
  isAsking.value = false
  taking.answer(question, value)
}

async function end(): Promise<void> {
  if (missing.value > 0 && !isAsking.value) {
    isAsking.value = true
    return
  }
  isAsking.value = false
  await taking.end()
}
</script>

<template>
  <section class="quiz" aria-label="Quiz">
    <ProblemNote v-if="quiz.problem.value && !quiz.data.value" :problem="quiz.problem.value" :again="quiz.refetch" />
    <p v-else-if="!quiz.data.value" class="second" role="status">Reading the quiz …</p>
    <template v-else>
      <p v-if="quiz.data.value.questions === 0 && !running" class="second">There are no questions here yet.</p>
      <template v-else-if="!running">
        <p class="second">{{ rules }}</p>
        <p v-if="quiz.data.value.score" class="score">
          <strong>{{ quiz.data.value.score }}</strong>
          <span class="small second">{{
            { best: 'your best attempt counts', latest: 'your latest attempt counts', mean: 'the mean counts' }[
              quiz.data.value.using
            ]
          }}</span>
        </p>
        <p v-if="quiz.data.value.mayBegin && mayAct" class="ways">
          <v-btn class="meant" :disabled="taking.busy.value" @click="taking.begin()">
            {{ quiz.data.value.done.length ? 'Begin another attempt' : 'Begin' }}
          </v-btn>
        </p>
      </template>
      <form v-else class="sheet" novalidate @submit.prevent="end">
        <p class="line clock">
          <span v-if="leftWords" role="timer">{{ leftWords }}</span>
          <span class="small second" role="status">{{
            taking.away.value
              ? `The server does not answer. ${taking.unsent.value === 1 ? 'One answer is' : `${taking.unsent.value} answers are`} kept on this device and sent as soon as it does.`
              : taking.unsent.value
                ? 'Saving …'
                : mayAct
                  ? 'Every answer is saved as you give it.'
                  : ''
          }}</span>
        </p>
        <QuestionSheet :questions="running.questions" :given="given" :disabled="!mayAct" @answer="set" />
        <ProblemNote v-if="taking.problem.value" :problem="taking.problem.value" />
        <p v-if="mayAct" class="ways">
          <v-btn type="submit" class="meant" :disabled="taking.busy.value">
            {{ isAsking ? 'Hand in anyway' : 'Hand in' }}
          </v-btn>
          <span class="small" role="status">{{
            missing === 0
              ? 'Every question has an answer.'
              : missing === 1
                ? 'One question has no answer.'
                : `${missing} questions have no answer.`
          }}</span>
        </p>
      </form>
      <!-- While one runs, earlier answers are out of the way: they say what is right. -->
      <DoneAttempt
        v-for="(attempt, at) in running ? [] : quiz.data.value.done"
        :key="attempt.n"
        :attempt="attempt"
        :of="quiz.data.value.done.length"
        :shown="quiz.data.value.shown"
        :open="at === 0"
      />
    </template>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
.quiz,
.sheet {
  display: grid;
  gap: var(--space-6);
  justify-items: start;
}
.sheet {
  width: 100%;
}
.clock {
  position: sticky;
  top: 0;
  z-index: 1;
  width: 100%;
  padding: var(--space-3) 0;
  background: var(--paper);
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.clock [role='timer'] {
  font-weight: 600;
  font-variant-numeric: tabular-nums;
}
.score {
  display: flex;
  align-items: baseline;
  gap: var(--space-4);
  font-size: var(--size-large);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
