<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, useTemplateRef, watch } from 'vue'
import { type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { useSend } from '../../../foundation/commands/useSend'
import { keys } from '../../../foundation/keys'
import { useScreenKeys } from '../../../foundation/useKeys'
import { counted, ordinal } from '../../../foundation/words'
import FileLine from '../../../parts/files/FileLine.vue'
import FormattedText from '../../../parts/FormattedText.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import OtherReader from './OtherReader.vue'
import { useReading } from './useReading'

/** The answers of an attempt at a quiz that a person reads, each with its points and a comment. */
const props = defineProps<{
  edition: number
  section: Schemas['WorkSection']
  piece: Schemas['WorkPiece']
  canGiveBack: boolean
}>()
const byKeys = defineModel<boolean>('byKeys', { required: true })
const emit = defineEmits<{ given: [] }>()

const given = ref(props.piece.quiz!.answers.map(({ question, points, words }) => ({ question, points, words })))
const isAgain = ref(false)
const sentence = ref('')

const answers = computed(() =>
  given.value.filter((one): one is { question: string; points: number; words: string } => one.points !== null),
)
const { reader, takeOver } = useReading(
  props.section.section,
  () => props.piece,
  () => props.canGiveBack && !props.piece.back && answers.value.length > 0,
)
const left = computed(() => given.value.length - answers.value.length)
const request = computed(() => ({
  item: props.piece.item,
  student: props.piece.student,
  n: props.piece.n,
  answers: answers.value,
}))
const post = (preview: boolean, body: typeof request.value, key?: string) =>
  ask(
    api.POST('/api/sections/{section}/mark-answers', {
      params: { path: { section: props.section.section }, query: { preview }, header: key ? once(key) : {} },
      body,
    }),
  )
watch(
  refDebounced(
    computed(() => answers.value.map(({ question, points }) => `${question} ${points}`).join()),
    150,
  ),
  async (some) => {
    sentence.value = ''
    if (some && (!props.piece.back || isAgain.value))
      sentence.value = await post(true, request.value).then(
        (shown) => shown.sentence,
        (error) => problemOf(error).title,
      )
  },
)

const { run, busy, problem } = useSend(
  (body: typeof request.value, key) => post(false, body, key),
  [keys.edition(props.edition)],
)
async function send(): Promise<void> {
  if (answers.value.length === 0) return
  // What is still to be read is asked before the list is read anew.
  const isWhole = left.value === 0
  if (!(await run(request.value))) return
  isAgain.value = false
  if (isWhole) emit('given')
}

const form = useTemplateRef<HTMLFormElement>('form')
const fields = () => [...(form.value?.querySelectorAll<HTMLElement>('.points input') ?? [])]
/** Enter leads from one answer to the next, and from the last one on to the next piece. */
function enter(event: KeyboardEvent): void {
  const all = fields()
  const next = all[all.indexOf(event.target as HTMLElement) + 1]
  event.preventDefault()
  byKeys.value = true
  if (next) next.focus()
  else void send()
}
const write = () => fields()[0]?.focus()
useScreenKeys([{ key: 'm', words: 'write the points of the first answer', run: write }])
onMounted(() => {
  if (byKeys.value && props.canGiveBack && !props.piece.back) void nextTick(write)
})
const isWriting = computed(() => props.canGiveBack && !reader.value && (!props.piece.back || isAgain.value))
</script>

<template>
  <article aria-label="Answers to read">
    <h2>
      <router-link
        :to="{ name: 'one-student', params: { edition, student: piece.student }, query: { section: section.section } }"
        >{{ piece.name }}</router-link
      >
    </h2>
    <p class="second">
      {{ piece.code }} {{ piece.title }} · {{ section.name }} · {{ ordinal(piece.n) }} attempt, ended
      {{ piece.handedInAt.words }} · {{ piece.quiz!.soFar }} {{ piece.back ? 'in all' : 'so far' }}
    </p>
    <OtherReader v-if="canGiveBack && reader && !piece.back" :reader="reader" @take-over="takeOver" />
    <form ref="form" novalidate @submit.prevent="send">
      <ol class="answers">
        <li v-for="(answer, at) in piece.quiz!.answers" :key="answer.question">
          <FormattedText :html="answer.html" />
          <FileLine v-if="answer.file" :file="answer.file" shown />
          <blockquote v-else class="written">{{ answer.answer || 'Nothing was written.' }}</blockquote>
          <template v-if="isWriting">
            <p class="points">
              <NumberField
                v-model="given[at]!.points"
                :label="`Points for answer ${at + 1}, out of ${answer.outOf}`"
                :max="10000"
                :decimals="2"
                optional
                @keydown.enter="enter"
              />
              <span>of {{ answer.outOf }}</span>
              <span v-if="(given[at]!.points ?? 0) > answer.outOf" class="small" role="status"
                >That is more than full points. It counts in full.</span
              >
            </p>
            <v-textarea
              v-model="given[at]!.words"
              rows="1"
              auto-grow
              maxlength="5000"
              placeholder="comment"
              :aria-label="`Comment on answer ${at + 1}`"
            />
          </template>
          <p v-else class="second">
            {{ answer.points ?? '–' }} of {{ answer.outOf
            }}<template v-if="answer.words">: {{ answer.words }}</template>
          </p>
        </li>
      </ol>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="isWriting" class="ways">
        <v-btn type="submit" class="meant" :disabled="busy || answers.length === 0">{{
          answers.length > 0 && left > 0 ? 'Keep these points' : 'Give the points'
        }}</v-btn>
        <v-btn v-if="piece.back" @click="isAgain = false">Leave them as they are</v-btn>
        <span class="small" role="status">{{ sentence || `${counted(left, 'answer')} to read.` }}</span>
      </p>
      <p v-else-if="canGiveBack">
        <button type="button" class="word-button" @click="isAgain = true">change the points</button>
      </p>
    </form>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: var(--space-5);
  align-content: start;
  max-width: 720px;
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
form,
.answers,
.answers > li {
  display: grid;
  gap: var(--space-4);
}
.answers {
  list-style: none;
}
.answers > li {
  padding: var(--space-4) 0;
  border-top: var(--stroke-hair) solid var(--hair);
}
blockquote {
  margin: 0;
  padding-left: var(--space-5);
  border-left: var(--stroke-strong) solid var(--hair);
  font-size: var(--size-large);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.points,
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
</style>
