<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { accepted, askedOfYou, joined } from '../../../parts/asks'
import FileLine from '../../../parts/files/FileLine.vue'
import FilePicker from '../../../parts/files/FilePicker.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import LinkLines from './LinkLines.vue'
import LogEntries from './LogEntries.vue'
import OwnJudgement from './OwnJudgement.vue'
import OwnCopy from './OwnCopy.vue'
import { useWriting } from './useWriting'
import type { OwnFile } from './written'

/** Where a student writes and hands in; one place on each item. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const {
  text,
  files,
  links,
  entries,
  isEmpty,
  asking,
  stillAsked,
  linkTo,
  log,
  write,
  list,
  add,
  handIn,
  takeBack,
  takingBack,
  status,
  away,
  pressed,
  problem,
  outcome,
  theirs,
  settle,
  copies,
  judged,
  judge,
  writeIn,
  replace,
  goOn,
} = useWriting(props.section, props.answer.item, props.answer.student, () => props.answer)
/** What was handed in is with the teacher: handing in once more is a second thought. */
const wanted = ref(false)
watch(outcome, (now) => {
  if (now?.handedIn) wanted.value = false
})
/** The rubric by which one's own piece is judged first; null: it is not. */
const rubric = computed(() =>
  asks.value?.judged && props.answer.rubric ? (props.answer.rubrics[props.answer.rubric] ?? null) : null,
)
const again = computed(
  () => props.answer.progress !== 'with-teacher' || wanted.value || !isEmpty.value || pressed.value !== null,
)
const canWrite = computed(() => pressed.value === null && props.answer.mayWork)
const asks = computed(() => props.answer.asks)
const togetherSentence = computed(
  () => `You hand this in together with ${joined(props.answer.together)}: one of you does it for all.`,
)
/** Who handed in what stands now, where it was somebody else. */
const by = computed(() => props.answer.history[0]?.by ?? null)
const isLog = computed(() => asks.value?.way === 'log')
const takesText = computed(() => !isLog.value && (asks.value?.text !== 'no' || text.value !== ''))
const takesLinks = computed(() => asks.value?.links !== 'no' || links.value.length > 0)
const takesFiles = computed(() => !asks.value || asks.value.others || asks.value.files.length > 0)

/** Of a file that is a copy: which one. */
const copyOf = (file: OwnFile) =>
  file.id === null ? undefined : props.answer.copies.find((copy) => copy.own === file.id)

function handInAgain(): void {
  wanted.value = true
  goOn()
}

function up(at: number): void {
  const moved = [...files.value]
  moved.splice(at - 1, 0, ...moved.splice(at, 1))
  list(moved)
}
</script>

<template>
  <section v-if="!again" aria-label="Your work" class="writing">
    <h2>Your work</h2>
    <p v-if="answer.together.length" class="asked">{{ togetherSentence }}</p>
    <p>
      Handed in {{ answer.history[0]!.at.words }}{{ by ? ` by ${by}` : '' }}. Your teacher has it.
      <template v-if="answer.mayWork">
        <button v-if="!by" type="button" class="word-button small" :disabled="takingBack" @click="takeBack">
          take back
        </button>
        <button type="button" class="word-button small also" @click="handInAgain">hand in again</button>
      </template>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
  <section v-else aria-label="Your work" class="writing">
    <h2>{{ answer.history.some((one) => !one.takenBackAt) ? 'Hand in again' : 'Your work' }}</h2>
    <p v-if="answer.draft?.missedAt" class="accent">
      This was sent, but came {{ answer.draft.missedAt.words }}, after the {{ answer.levels.item.one }} had closed. It
      is kept, and your teacher sees it.
    </p>
    <ProblemNote
      v-if="theirs"
      :problem="{
        status: 409,
        code: 'changed-meanwhile',
        title: 'You wrote something else in the meantime, on another page or device.',
        detail: `There it says: “${theirs.text.slice(0, 200)}”. Both are kept until you choose.`,
      }"
    >
      <v-btn @click="settle(false)">Keep that one</v-btn>
      <v-btn class="meant" @click="settle(true)">Keep this one</v-btn>
    </ProblemNote>
    <p v-if="answer.together.length" class="asked">{{ togetherSentence }}</p>
    <p v-if="askedOfYou(asks)" class="asked">{{ askedOfYou(asks) }}</p>
    <LogEntries v-if="isLog" :entries="entries" :today="answer.today" :can-write="canWrite" @change="log" />
    <label v-if="takesText" class="field-name" for="writing">Your text</label>
    <v-textarea
      v-if="takesText"
      id="writing"
      :model-value="text"
      rows="9"
      maxlength="100000"
      :disabled="!canWrite"
      @update:model-value="write($event)"
    />
    <ol v-if="files.length" class="own" aria-label="Your files">
      <li v-for="(file, at) in files" :key="file.id ?? file.upload ?? at">
        <OwnCopy
          v-if="file.shown && copyOf(file)"
          :copy="copyOf(file)!"
          :file="file.shown"
          :written="copies[file.shown.id] ?? null"
          :can-write="canWrite"
          @write="writeIn(file.shown.id, $event)"
          @replace="replace(file, $event)"
        />
        <FileLine v-else-if="file.shown" :file="file.shown">
          <button
            v-if="at > 0 && canWrite"
            type="button"
            class="word-button small"
            :aria-label="`Move ${file.name} up`"
            @click="up(at)"
          >
            up
          </button>
          <button
            v-if="canWrite"
            type="button"
            class="word-button small"
            :aria-label="`Remove ${file.name}`"
            @click="list(files.filter((one) => one !== file))"
          >
            remove
          </button>
        </FileLine>
        <p v-else>
          <b>{{ file.name }}</b> <span class="small second">{{ file.size }}</span>
        </p>
      </li>
    </ol>
    <FilePicker
      v-if="canWrite && takesFiles"
      label="Your files"
      words="Add files or a photograph"
      :accept="accepted(asks)"
      :place="`${answer.student}-${section}-${answer.item}`"
      @sent="add"
    />
    <LinkLines v-if="takesLinks" :links="links" :can-write="canWrite" @change="linkTo" />
    <OwnJudgement v-if="rubric && canWrite" :rubric="rubric" :judged="judged" @judge="judge" />
    <ProblemNote v-if="problem" :problem="problem" />
    <div v-if="asking" class="missing" role="alert">
      <p>
        {{ joined(stillAsked).replace(/^./, (letter) => letter.toUpperCase()) }}
        {{ stillAsked.length === 1 ? 'is' : 'are' }} missing. Hand in anyway?
      </p>
      <p class="ways">
        <v-btn class="meant" @click="handIn(true)">Hand in anyway</v-btn>
        <v-btn @click="asking = false">Not yet</v-btn>
      </p>
    </div>
    <p v-else class="ways">
      <v-btn class="meant" :disabled="!canWrite || isEmpty" @click="handIn()">Hand in</v-btn>
      <span class="small" :class="{ accent: away }" role="status">
        <template v-if="outcome?.handedIn">Handed in {{ outcome.at.words }}.</template>
        <template v-else-if="outcome"
          >It came after the {{ answer.levels.item.one }} had closed. Your text is kept, and your teacher sees
          it.</template
        >
        <template v-else>{{ status }}</template>
      </span>
    </p>
  </section>
</template>

<style scoped>
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
  margin-bottom: var(--space-4);
}
.writing {
  max-width: 720px;
}
.own {
  list-style: none;
  display: grid;
  gap: var(--space-3);
  padding: var(--space-4) 0;
}
.writing > .picker {
  margin-top: var(--space-4);
}
.asked {
  padding-bottom: var(--space-4);
}
.missing {
  margin-top: var(--space-5);
  padding: var(--space-4) var(--space-6);
  border-left: var(--stroke-strong) solid var(--accent);
  background: var(--wash);
}
.also {
  margin-left: var(--space-5);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
  padding-top: var(--space-4);
}
</style>
