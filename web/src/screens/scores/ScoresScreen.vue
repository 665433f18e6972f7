<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useLevels } from '../../foundation/levels'
import { useAnswer } from '../../foundation/useAnswer'
import { useSection } from '../../foundation/useSection'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import WhyPanel from '../../parts/why/WhyPanel.vue'
import AddingUpPanel from './AddingUpPanel.vue'
import QuestionsPanel from './QuestionsPanel.vue'
import ScoreTable from './ScoreTable.vue'
import TotalPanel from './TotalPanel.vue'
import WritingBar from './WritingBar.vue'
import { type Told, type Which, countOf, linesOf, shownItems } from './scoreLines'
import { useScoreWriting } from './useScoreWriting'

/** How are they doing? Students and items, of a section or of all, and what it comes to. */
const props = defineProps<{ edition: number }>()

const levels = useLevels()
const viewpoint = useViewpoint()
const scores = useAnswer(() => questions.scores(props.edition, viewpoint.query.value), { refetchInterval: 60_000 })
const { section: chosen, choose } = useSection()
const answer = computed(() => scores.data.value)
const all = ref(false)
const section = computed(
  () => answer.value?.sections.find((one) => one.section === chosen.value) ?? answer.value?.sections[0],
)
const sections = computed(() => (all.value ? (answer.value?.sections ?? []) : section.value ? [section.value] : []))
const which = ref<Which>('for-marks')
const told = ref<Told>('points')
const places = computed(() => (answer.value ? shownItems(answer.value, which.value) : []))
const lines = computed(() => linesOf(sections.value))
const students = computed(() => sections.value.reduce((sum, one) => sum + one.students.length, 0))
const setting = ref(false)
/** What stands beside the table: whose total, the questions of which quiz, or why an item is open to a student or not. */
const explained = ref<number | null>(null)
const asked = ref<number | null>(null)
const why = ref<{ student: number; item: number } | null>(null)
function look(at: { explained?: number; asked?: number; why?: { student: number; item: number } }): void {
  explained.value = at.explained === explained.value ? null : (at.explained ?? null)
  asked.value = at.asked === asked.value ? null : (at.asked ?? null)
  why.value = at.why ?? null
}

/** Scores are written into the table of one section. */
const isWriting = ref(false)
const writing = useScoreWriting(
  () => props.edition,
  () => section.value,
  () => answer.value?.items ?? [],
)
const canWrite = computed(
  () => answer.value?.canChange && !all.value && places.value.some((place) => answer.value!.items[place]!.marked),
)
function startWriting(): void {
  told.value = 'points'
  look({})
  isWriting.value = true
}
// What was written before and not given yet comes up again.
watch(
  () => canWrite.value && writing.written.value.size > 0,
  (isKept) => {
    if (isKept) startWriting()
  },
  { immediate: true },
)
// What is written is of the section in view, and is not lost on the way to another.
const isHeld = computed(() => isWriting.value && writing.given.value.scores.length > 0)

const only = (one: number) => {
  all.value = false
  void choose(one)
}
/** Both files hold what is shown: one section, or all. */
const file = (form: string) => {
  const query = new URLSearchParams({ ...viewpoint.query.value })
  if (!all.value && section.value) query.set('section', `${section.value.section}`)
  return `/api/editions/${props.edition}/${form}?${query}`
}
const facts = computed(() => [
  `${counted(students.value, 'student')}, ${levels.value.item.counted(places.value.length)}`,
  `${countOf(sections.value, places.value, 'overdue')} overdue`,
  `${countOf(sections.value, places.value, 'to read')} to read`,
])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="scores.problem.value && !answer" :problem="scores.problem.value" :again="scores.refetch" />
    <p v-else-if="!answer" class="second" role="status">Adding up the scores …</p>
    <p v-else-if="answer.sections.length === 0" class="second none">
      You teach no section of this course that has students, so there are no scores to show.
    </p>
    <template v-else>
      <div class="choices">
        <p class="sections" role="group" aria-label="Sections">
          <button
            v-for="one in answer.sections"
            :key="one.section"
            type="button"
            :disabled="isHeld"
            :aria-pressed="!all && one.section === section?.section"
            @click="only(one.section)"
          >
            <SectionKey :letter="one.letter" :name="one.name" />
            <span class="small">{{ one.students.length }}</span>
          </button>
          <button
            v-if="answer.sections.length > 1"
            type="button"
            :disabled="isWriting"
            :aria-pressed="all"
            @click="all = true"
          >
            all
            <span class="small">{{ answer.sections.reduce((sum, one) => sum + one.students.length, 0) }}</span>
          </button>
        </p>
        <ChoiceField
          v-model="which"
          label="Which items"
          :choices="[
            { value: 'for-marks', title: 'for marks only' },
            { value: 'scored', title: 'all with a score' },
            { value: 'all', title: 'all that is handed in' },
          ]"
        />
        <p class="told" role="group" aria-label="What is shown">
          <button
            v-for="one in ['points', 'percent', 'state'] as const"
            :key="one"
            type="button"
            :aria-pressed="told === one"
            @click="told = one"
          >
            {{ one === 'percent' ? 'per cent' : one }}
          </button>
        </p>
        <p class="files">
          <button v-if="canWrite && !isWriting" type="button" class="word-button small" @click="startWriting">
            write scores
          </button>
          <button v-if="answer.canChange" type="button" class="word-button small" @click="setting = !setting">
            how it adds up
          </button>
          <a :href="file('scores.xlsx')" class="word-button small" download>as a spreadsheet</a>
          <a :href="file('scores.csv')" class="word-button small" download>as CSV</a>
          <a :href="file('results.zip')" class="word-button small" download>results file</a>
        </p>
      </div>
      <p v-if="students === 0" class="second none">Nobody is listed in {{ section?.name }} yet.</p>
      <p v-else-if="places.length === 0" class="second none">
        Nothing here is for marks. In Outline, choose what is, and how it is marked.
      </p>
      <div v-else class="split" :class="{ explained: explained !== null || asked !== null || why !== null }">
        <ScoreTable
          v-bind="{ edition, answer, lines, places, told, explained, asked }"
          :written="isWriting ? writing.written.value : null"
          @write="writing.write"
          @paste="writing.paste"
          @explain="(student) => look({ explained: student })"
          @ask="(quiz) => look({ asked: quiz })"
          @why="(student, item) => look({ why: { student, item } })"
        />
        <QuestionsPanel
          v-if="asked !== null"
          :key="asked"
          :edition="edition"
          :quiz="asked"
          :section="all ? null : (section?.section ?? null)"
          @close="asked = null"
        />
        <TotalPanel
          v-if="explained !== null"
          :key="explained"
          :edition="edition"
          :student="explained"
          @close="explained = null"
        />
        <div v-if="why" class="why">
          <WhyPanel
            :key="`${why.student} ${why.item}`"
            :edition="edition"
            :student="why.student"
            :item="why.item"
            @close="why = null"
          />
        </div>
      </div>
    </template>
    <WritingBar v-if="isWriting && section" v-bind="{ section, writing }" @close="isWriting = false" />
    <AddingUpPanel
      v-if="setting && answer"
      :key="answer.version"
      v-bind="{ edition, answer }"
      @close="setting = false"
    />
  </main>
  <TitleBlock v-if="answer" :edition="edition" :facts="facts" :can-change="answer.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr auto;
  min-height: 0;
}
.none {
  padding: var(--space-6) 0;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-7);
  padding-bottom: var(--space-3);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.sections,
.told,
.files {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-6);
}
.told {
  gap: var(--space-5);
}
.sections button,
.told button {
  display: inline-flex;
  align-items: baseline;
  gap: var(--space-3);
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-strong) solid transparent;
}
.told button {
  color: var(--ink-2);
}
.choices [aria-pressed='true'] {
  border-color: var(--ink);
  color: var(--ink);
}
.files {
  margin-left: auto;
}
.split {
  display: grid;
  min-height: 0;
}
.split.explained {
  grid-template-columns: minmax(0, 1fr) 360px;
}
.why {
  overflow: auto;
  min-height: 0;
  padding: var(--space-6) var(--space-6) var(--space-9);
  background: var(--sheet);
  border-left: var(--stroke-hair) solid var(--accent);
}
@media (max-width: 900px) {
  .split.explained {
    grid-template-columns: 1fr;
    grid-template-rows: minmax(0, 1fr) minmax(0, 1fr);
  }
}
</style>
