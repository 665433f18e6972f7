<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { useSection } from '../../foundation/useSection'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import FreeingLines from '../../parts/waiting/FreeingLines.vue'
import NothingOpenList from '../../parts/waiting/NothingOpenList.vue'
import { useWhyKey } from '../../parts/why/useWhyKey'
import PrintedWork from './PrintedWork.vue'
import MissingList from './MissingList.vue'
import PieceSheet from './piece/PieceSheet.vue'
import QuizSheet from './piece/QuizSheet.vue'
import { useScreenKeys } from '../../foundation/useKeys'
import PieceRow from './PieceRow.vue'
import ReadyPart from './ReadyPart.vue'
import WorkBar from './WorkBar.vue'
import { type Order, type View, inOrder } from './workOrder'
import { questions } from '../../foundation/api/questions'

/** What is there to read? What was handed in, by section: first what frees most. */
const props = defineProps<{ edition: number }>()

const levels = useLevels()
const viewpoint = useViewpoint()
const work = useAnswer(() => questions.work(props.edition, viewpoint.query.value), { refetchInterval: 20_000 })
const route = useRoute()
const router = useRouter()
const { section: chosenSection, choose } = useSection()
/** The piece stands in the address too: its item and its student. */
const chosen = computed(() => {
  const { item, student, attempt } = route.query
  return item && student ? `${Number(item)}-${Number(student)}-${Number(attempt ?? 0)}` : null
})
/** What of the address names a piece. */
const OF_PIECE = ['item', 'student', 'attempt']
const givenBackToo = ref(route.query.back === 'too')
type Piece = Schemas['WorkPiece']
/** Of a quiz each attempt is a piece. */
const keyOf = (piece: Piece) => `${piece.item}-${piece.student}-${piece.quiz ? piece.n : 0}`
const sections = computed(() => work.data.value?.sections ?? [])
const section = computed(
  () =>
    sections.value.find((one) => one.section === chosenSection.value) ??
    sections.value.find((one) => one.waiting > 0) ??
    sections.value[0],
)
const ofSection = computed(() => (section.value?.pieces ?? []).filter((piece) => givenBackToo.value || !piece.back))
/** Of one item only; null: of all. */
const item = ref<number | null>(null)
/** Where one comes from names the work that is to be read. */
watch(
  () => (route.query.student ? null : Number(route.query.item ?? 0)),
  (asked) => (item.value = asked || item.value),
  { immediate: true },
)
const items = computed(() => [
  { value: null, title: `every ${levels.value.item.one}` },
  ...[...new Map(ofSection.value.map((one) => [one.item, `${one.code} ${one.title}`]))].map(([value, title]) => ({
    value,
    title,
  })),
])
const isThere = computed(() => items.value.some((one) => one.value === item.value))
const order = ref<Order>('frees')
const pieces = computed(() =>
  inOrder(
    item.value === null || !isThere.value ? ofSection.value : ofSection.value.filter((one) => one.item === item.value),
    order.value,
  ),
)
const printing = ref(false)
/** How many were read and go back later; and whether they are looked at now. */
const ready = computed(() => (section.value?.pieces ?? []).filter((one) => one.ready).length)
const isReadyOpen = ref(false)
const view = computed<View>({
  get: () => {
    const { view: asked } = route.query
    return asked === 'missing' || asked === 'nothing-open' ? asked : 'handed-in'
  },
  set: (to) => void router.replace({ query: { ...route.query, view: to === 'handed-in' ? undefined : to } }),
})
const idle = computed(() => (section.value?.nothingOpen ?? []).reduce((n, group) => n + group.students.length, 0))
/** What it would open to give back what is listed. */
const freeing = computed(() =>
  (section.value?.freeing ?? []).filter((one) => item.value === null || !isThere.value || one.item === item.value),
)
/** The piece in view stays in view, whatever is handed in meanwhile and would come before it. */
const held = ref<string | null>(null)
const piece = computed(
  () =>
    pieces.value.find((one) => keyOf(one) === chosen.value) ??
    pieces.value.find((one) => keyOf(one) === held.value) ??
    pieces.value[0],
)
watch(piece, (one) => (held.value = one ? keyOf(one) : null), { immediate: true })
/** Its row is in view too, wherever one comes from. */
const list = useTemplateRef<HTMLElement>('list')
watch([held, list], () => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' }), {
  flush: 'post',
})

const read = (one: Piece) =>
  router.replace({
    query: {
      ...route.query,
      section: section.value!.section,
      item: one.item,
      student: one.student,
      attempt: one.quiz ? one.n : undefined,
    },
  })

/** After one is given back, the next one that waits comes up by itself; by keys one goes on writing at once. */
const byKeys = ref(false)
function next(): void {
  held.value = null
  void choose(section.value?.section ?? null, OF_PIECE)
}

function step(by: number): void {
  const at = pieces.value.findIndex((one) => piece.value && keyOf(one) === keyOf(piece.value))
  const to = pieces.value[at + by]
  byKeys.value = false
  if (to) void read(to)
}
useScreenKeys([
  { key: 'ArrowDown', words: 'the next piece', run: () => step(1) },
  { key: 'ArrowUp', words: 'the piece before', run: () => step(-1) },
])
useWhyKey()
</script>

<template>
  <main class="body" :class="{ looks: isReadyOpen && ready > 0 }">
    <ProblemNote v-if="work.problem.value && !work.data.value" :problem="work.problem.value" :again="work.refetch" />
    <p v-else-if="!work.data.value" class="second" role="status">Reading the work …</p>
    <p v-else-if="!section" class="second none">
      You do not teach a section of this edition, so there is no work to read.
    </p>
    <template v-else>
      <p class="sections" role="group" aria-label="Sections">
        <button
          v-for="one in sections"
          :key="one.section"
          type="button"
          :aria-pressed="one.section === section.section"
          @click="choose(one.section, OF_PIECE)"
        >
          <SectionKey :letter="one.letter" :name="one.name" />
          <span class="small">{{ one.waiting === 0 ? 'nothing to read' : `${one.waiting} to read` }}</span>
        </button>
      </p>
      <WorkBar
        v-model:view="view"
        v-model:order="order"
        v-model:item="item"
        v-model:given-back-too="givenBackToo"
        :items="items"
        :pieces="pieces.length"
        :ready="work.data.value.canGiveBack ? ready : 0"
        :is-ready-open="isReadyOpen"
        :idle="idle"
        @ready="isReadyOpen = !isReadyOpen"
        @print="printing = true"
      />
      <ReadyPart
        v-if="isReadyOpen && ready"
        :key="`ready ${section.section}`"
        :edition="edition"
        :section="section"
        @close="isReadyOpen = false"
      />
      <PrintedWork v-if="printing" :section="section.name" :pieces="pieces" @printed="printing = false" />
      <div v-if="view === 'nothing-open'" class="idle">
        <p v-if="!idle" class="second">
          Everyone in {{ section.name }} has something to work on, or has done all there is.
        </p>
        <NothingOpenList v-else :edition="edition" :groups="section.nothingOpen" />
      </div>
      <MissingList
        v-else-if="view === 'missing'"
        :key="section.section"
        :edition="edition"
        :section="section"
        :can-change="work.data.value.canGiveBack"
      />
      <div v-else class="split">
        <div class="pieces">
          <FreeingLines v-if="!givenBackToo" :edition="edition" :section="section.section" :freeing="freeing" />
          <ul ref="list" class="ruled list" tabindex="0" aria-label="Pieces of work">
            <li v-for="one in pieces" :key="keyOf(one)">
              <PieceRow :piece="one" :current="!!piece && keyOf(one) === keyOf(piece)" @read="read(one)" />
            </li>
            <li v-if="pieces.length === 0" class="second none">Nothing to read in {{ section.name }}.</li>
          </ul>
        </div>
        <QuizSheet
          v-if="piece?.quiz"
          :key="keyOf(piece)"
          v-model:by-keys="byKeys"
          :edition="edition"
          :section="section"
          :piece="piece"
          :can-give-back="work.data.value.canGiveBack"
          @given="next"
        />
        <PieceSheet
          v-else-if="piece"
          :key="keyOf(piece)"
          v-model:by-keys="byKeys"
          :edition="edition"
          :section="section"
          :piece="piece"
          :rubrics="work.data.value.rubrics"
          :can-give-back="work.data.value.canGiveBack"
          @given="next"
        />
      </div>
    </template>
  </main>
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto auto 1fr;
  min-height: 0;
}
/* What is ready stands between. */
.looks {
  grid-template-rows: auto auto auto 1fr;
}
.none {
  padding: var(--space-6) 0;
}
.sections {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-8);
  padding-bottom: var(--space-3);
}
.sections button {
  display: inline-flex;
  align-items: baseline;
  gap: var(--space-4);
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-strong) solid transparent;
}
.sections [aria-pressed='true'] {
  border-color: var(--ink);
}
.idle {
  max-width: 900px;
  padding: var(--space-6) 0;
  overflow: auto;
}
.split > .pieces {
  display: flex;
  flex-direction: column;
  overflow: hidden;
}
.pieces > :first-child:not(.list) {
  flex: none;
  padding: var(--space-4);
}
.list {
  position: relative;
  min-height: 0;
  overflow: auto;
}
.split {
  display: grid;
  grid-template-columns: 400px 1fr;
  gap: var(--space-9);
  min-height: 0;
}
.split > * {
  position: relative;
  min-height: 0;
  overflow: auto;
}
.split > article {
  padding: var(--space-6) 0 var(--space-8);
}
</style>
