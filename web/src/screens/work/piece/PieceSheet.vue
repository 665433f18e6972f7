<script setup lang="ts">
import { computed, nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { useScreenKeys } from '../../../foundation/useKeys'
import type { Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { joined } from '../../../parts/asks'
import ForStudentPanel from '../../../parts/ForStudentPanel.vue'
import RemarkedPiece from '../../../parts/remarks/RemarkedPiece.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import OtherReader from './OtherReader.vue'
import { useReading } from './useReading'
import ReadyMarks from './ReadyMarks.vue'
import GivenBack from './GivenBack.vue'
import PieceHead from './PieceHead.vue'
import EarlierVersions from './EarlierVersions.vue'
import { questions } from '../../../foundation/api/questions'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { remarksIn } from '../../../parts/remarks/remarks'
import RemarkField from '../../../parts/remarks/RemarkField.vue'
import MarkField from '../marking/MarkField.vue'
import RubricField from '../marking/RubricField.vue'
import { sumOf } from '../../../parts/marks/rubric'
import { useGiveBack } from './useGiveBack'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'

/** One piece of work: what was handed in, and what goes back. */
const props = defineProps<{
  edition: number
  section: Schemas['WorkSection']
  piece: Schemas['WorkPiece']
  /** Those that pieces are marked by, or were. */
  rubrics: Record<string, Schemas['RubricForm']>
  canGiveBack: boolean
}>()
/** What was pressed last was a key: then one goes on writing in the next piece at once. */
const byKeys = defineModel<boolean>('byKeys', { required: true })
const emit = defineEmits<{ given: [] }>()
const levels = useLevels()
/** Something is to be different for this student. */
const isOther = ref(false)
/** Marked without the rubric that there is. */
const isPlain = ref(false)
/** What was handed in before is shown too. */
const isEarlier = ref(false)

/** What was given is being put right. */
const isCorrecting = ref(false)
/** There is something to give: it waits, or what was given or is ready is being changed. */
const isOpen = () => (!props.piece.back && !props.piece.ready) || isCorrecting.value
/** What closes by that is to stay open. */
const isKept = ref(false)
const { text, remarks, mark, again, alone, busy, problem, sentence, closes, stays, close, correct, give } = useGiveBack(
  props.edition,
  props.section.section,
  () => props.piece,
  isOpen,
  stillToMark,
)

/** Once a rubric is begun, each criterion that is not optional takes a level. */
function stillToMark(given: Schemas['MarkGiven'] | null): string {
  const rubric = props.piece.rubric && given?.rubric ? props.rubrics[props.piece.rubric] : undefined
  const left = rubric ? sumOf(rubric, given!.rubric!).left : 0
  return left ? `${left === 1 ? 'One criterion is' : `${left} criteria are`} still to be marked.` : ''
}

async function send(later = false): Promise<void> {
  if (!(await give(later))) return
  isCorrecting.value = false
  emit('given')
}
function putRight(): void {
  correct()
  isCorrecting.value = true
}

const form = useTemplateRef<HTMLFormElement>('form')
const { reader, takeOver } = useReading(
  props.section.section,
  () => props.piece,
  () => props.canGiveBack && isOpen() && !!(text.value || mark.value || remarks.value.length),
)
const mayWrite = () => props.canGiveBack && !reader.value && props.piece.work !== null && isOpen()
/** Those being written, or those that went back. */
const shownRemarks = computed({
  get: () => (mayWrite() ? remarks.value : remarksIn((props.piece.back ?? props.piece.ready?.back)?.remarks)),
  set: (made) => (remarks.value = made),
})
const viewpoint = useViewpoint()
const made = useAnswer(() => questions.remarks(props.edition, props.piece.item, viewpoint.query.value))
const page = useTemplateRef<{ begin: () => void }>('page')
const goTo = (field: string) => form.value?.querySelector<HTMLElement>(field)?.focus()
/** Nothing is done by a key beside the fields but going to them: giving back takes Enter in one of them. */
function write(): void {
  // A rubric is marked by keys from anywhere beside the fields.
  if (!props.piece.rubric || isPlain.value) goTo(props.piece.marked ? '.mark input' : 'textarea')
}
/** With a rubric Enter gives back once each criterion has its level. */
const isMarked = () => !!mark.value?.rubric && !stillToMark(mark.value)
useScreenKeys([
  {
    key: 'Enter',
    words: 'give the piece back, once its rubric is filled in',
    run: () => {
      byKeys.value = true
      if (mayWrite() && isMarked() && !busy.value) void send()
    },
  },
  { key: 'r', words: 'write a remark on what is chosen, or on the next sentence', run: () => page.value?.begin() },
  { key: 'm', words: 'write the mark', run: () => goTo('.mark input') },
  { key: 'f', words: 'write feedback; Ctrl and Enter in it give the piece back', run: () => goTo('textarea') },
  { key: 'a', words: 'to go on, or to try again', run: () => mayWrite() && (again.value = !again.value) },
])
onMounted(() => {
  if (byKeys.value && mayWrite()) void nextTick(write)
})

function pressed(event: KeyboardEvent): void {
  byKeys.value = true
  if (event.key === 'Escape' && event.target instanceof HTMLElement) event.target.blur()
  if (event.key === 'Enter' && event.ctrlKey && !busy.value) {
    event.preventDefault()
    void send()
  }
}
</script>

<template>
  <article aria-label="A piece of work">
    <div class="read">
      <PieceHead :edition="edition" :section="section" :piece="piece">
        ·
        <button
          v-if="piece.n > 1"
          type="button"
          class="word-button"
          :aria-expanded="isEarlier"
          @click="isEarlier = !isEarlier"
        >
          what changed</button
        ><template v-if="piece.n > 1"> · </template>
        <button type="button" class="word-button" :aria-expanded="isOther" @click="isOther = !isOther">
          more time, excused, opened …<span class="said-only"> for {{ piece.name }}</span>
        </button>
      </PieceHead>
      <p v-if="piece.stillAsked.length" class="second">Not handed in: {{ joined(piece.stillAsked) }}.</p>
      <EarlierVersions v-if="isEarlier" :edition="edition" :item="piece.item" :student="piece.student" />
      <RemarkedPiece
        v-else
        ref="page"
        v-model="shownRemarks"
        :piece="piece"
        :writable="mayWrite()"
        :made="made.data.value ?? []"
        large
        shown
        @send="send()"
      />
    </div>
    <ForStudentPanel
      v-if="isOther"
      :edition="edition"
      :students="[piece.student]"
      :name="piece.name"
      :items="[{ id: piece.item, title: `${piece.code} ${piece.title}`, differs: [] }]"
      @close="isOther = false"
    />
    <ForStudentPanel
      v-if="isKept && closes.length"
      :edition="edition"
      :students="[piece.student]"
      :name="piece.name"
      :items="closes.map((id) => ({ id, title: 'What closes', differs: [] }))"
      first="open"
      @close="isKept = false"
    />
    <p v-if="piece.work === null" class="second">
      It is kept as a draft.
      <router-link
        :to="{ name: 'one-student', params: { edition, student: piece.student }, query: { section: section.section } }"
        >Open the {{ levels.item.one }} for this student</router-link
      >, and they can hand it in.
    </p>
    <GivenBack
      v-else-if="piece.back && !isCorrecting"
      :back="piece.back"
      :rubrics="rubrics"
      :judged="piece.judged"
      :can-correct="canGiveBack"
      @correct="putRight"
    />
    <ReadyMarks
      v-else-if="piece.ready && !isCorrecting"
      :edition="edition"
      :section="section.section"
      :piece="piece"
      :rubric="piece.rubric ? rubrics[piece.rubric]! : null"
      :can-change="canGiveBack"
      @change="putRight"
      @given="emit('given')"
    />
    <OtherReader v-else-if="canGiveBack && reader" :reader="reader" @take-over="takeOver" />
    <form
      v-else-if="canGiveBack"
      ref="form"
      novalidate
      @submit.prevent="send()"
      @keydown="pressed"
      @pointerdown="byKeys = false"
    >
      <RubricField
        v-if="piece.rubric && !isPlain"
        v-model="mark"
        :rubric="rubrics[piece.rubric]!"
        :marked="piece.marked!"
        :own="piece.judged?.rubric === piece.rubric ? piece.judged?.levels : null"
        @plain="isPlain = true"
      />
      <div>
        <label class="field-name" for="feedback">Feedback</label>
        <RemarkField
          v-model="text"
          name="feedback"
          :rows="piece.rubric ? 2 : 4"
          :made="made.data.value ?? []"
          :longest="20000"
        />
      </div>
      <MarkField v-if="piece.marked && (!piece.rubric || isPlain)" v-model="mark" class="mark" :marked="piece.marked" />
      <OneOfField
        v-model="again"
        label="How it goes back"
        :choices="[
          { value: false, title: 'go on' },
          { value: true, title: 'try again' },
        ]"
      />
      <TickField v-if="piece.others.length" v-model="alone" :label="`only to ${piece.name}`" />
      <TickField v-if="stays" v-model="close" :label="`close what only the earlier mark opened for ${piece.name}`" />
      <p v-if="closes.length">
        <button type="button" class="word-button" :aria-expanded="isKept" @click="isKept = !isKept">
          keep it open for {{ piece.name }}
        </button>
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="busy">{{
          piece.back ? 'Give it back again' : 'Give back'
        }}</v-btn>
        <v-btn v-if="!piece.back" :disabled="busy" @click="send(true)">Ready, give back later</v-btn>
        <v-btn v-if="isCorrecting" @click="isCorrecting = false">Leave it as it is</v-btn>
        <span class="small" role="status">{{ sentence }} Once it has been read it cannot be taken back.</span>
      </p>
    </form>
    <p v-else class="second">You can read it from here, but not give it back.</p>
  </article>
</template>

<style scoped>
article {
  display: grid;
  gap: var(--space-5);
  align-content: start;
  max-width: 880px;
}
.read {
  display: grid;
  gap: var(--space-5);
  align-content: start;
}
/* Where there is room, what was written and what goes back stand side by side. */
@media (min-width: 1700px) {
  article {
    grid-template-columns: 1fr 1fr;
    gap: var(--space-9);
    max-width: none;
  }
  article form {
    border-top: 0;
    padding-top: 0;
  }
}
form {
  display: grid;
  gap: var(--space-4);
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-5);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
