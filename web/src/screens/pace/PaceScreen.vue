<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useScreenKeys } from '../../foundation/useKeys'
import { useReach } from '../../foundation/useReach'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import PaceChart from './PaceChart.vue'
import PaceSections from './PaceSections.vue'
import PaceTable from './PaceTable.vue'
import ShapePanel from './ShapePanel.vue'
import TaughtPanel from './TaughtPanel.vue'
import { type Drag, type Shape, differenceOf } from './paceDrag'
import { windowOf } from './paceLines'
import { readoutOf } from './paceWords'

/** Where is everybody? */
const props = defineProps<{ edition: number }>()
const levels = useLevels()

type At = { section: number; place: number }
const viewpoint = useViewpoint()
const path = computed(() => ({ path: { edition: props.edition }, query: viewpoint.query.value }))
const pace = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'pace', viewpoint.key.value)),
  () => api.GET('/api/editions/{edition}/pace', { params: path.value }),
)
const ribbon = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'ribbon', viewpoint.key.value)),
  () => api.GET('/api/editions/{edition}/ribbon', { params: path.value }),
)
const off = ref<number[]>([])
const zoom = ref<'term' | 'month' | 'week'>('term')
const asTable = ref(false)
/** Held against the edition before. */
const withLast = ref(true)
const looked = ref<At | null>(null)
const taken = ref<At | null>(null)
/** What is dragged just now; and what was, until it is done or left. */
const dragged = ref<Drag | null>(null)
const shaping = ref<(At & { shape: Shape }) | null>(null)
const sections = computed(() => (pace.data.value?.sections ?? []).filter((section) => !off.value.includes(section.id)))
const view = computed(() =>
  ribbon.data.value ? windowOf(zoom.value, ribbon.data.value.days, ribbon.data.value.momentAt) : { from: 0, to: 1 },
)
const sectionOf = (id?: number) => pace.data.value?.sections.find((section) => section.id === id)
const runOf = (at: At) => sectionOf(at.section)?.lessons.find((one) => one.place === at.place)
const differ = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
const dragRequest = computed(() => {
  const drag = dragged.value
  const section = sectionOf(drag?.section)
  const run = drag && runOf(drag)
  return section && run ? differenceOf(section, run, drag.shape) : null
})
const dragReach = useReach(dragRequest, differ.preview)
const takenSection = computed(() => pace.data.value?.sections.find((section) => section.id === taken.value?.section))
/** What the lesson looked at is, exactly. */
const readout = computed(() => {
  if (dragged.value && pace.data.value) {
    const title = pace.data.value.lessons[dragged.value.place]?.title
    return `${sectionOf(dragged.value.section)?.name}: ${title} ${dragged.value.words}. ${dragReach.value}`
  }
  const section = pace.data.value?.sections.find((one) => one.id === looked.value?.section)
  const run = section?.lessons.find((one) => one.place === looked.value?.place)
  const lesson = pace.data.value?.lessons[looked.value?.place ?? -1]
  if (!section || !run || !lesson)
    return !pace.data.value?.canChange
      ? asTable.value
        ? ''
        : `Point at a line to read its ${levels.value.lesson.one} and class.`
      : asTable.value
        ? `Click a date to note what the ${levels.value.lesson.one} took.`
        : `Point at a line to read its ${levels.value.lesson.one} and class; click it to note what it took; drag an end to fix its date or stretch it.`
  return readoutOf(section, run, lesson, withLast.value)
})
const facts = computed(() => {
  const all = pace.data.value?.sections ?? []
  const short = all.filter((section) => section.lacking > 0).length
  return [
    `${levels.value.lesson.counted(pace.data.value?.lessons.length ?? 0)}, ${all.length} sections`,
    short ? `${short} do not fit the term` : 'all fit the term',
  ]
})
const zooms = ['term', 'month', 'week'] as const

function toggle(section: number): void {
  off.value = off.value.includes(section) ? off.value.filter((one) => one !== section) : [...off.value, section]
}

function take(at: At): void {
  shaping.value = null
  taken.value = looked.value = at
}

/** Let go of: what it would do is looked at once more before it is done. */
function drop(drag: Drag): void {
  dragged.value = null
  looked.value = { section: drag.section, place: drag.place }
  shaping.value = { ...looked.value, shape: drag.shape }
}

function shape(field: 'pin' | 'length'): void {
  if (!taken.value) return
  const run = runOf(taken.value)
  const value = run?.starts?.local.slice(0, 10) ?? null
  shaping.value = {
    ...taken.value,
    shape: field === 'pin' ? { field, value } : { field, value: run?.length ?? null },
  }
}

useScreenKeys([
  { key: 'Escape', words: 'close what was taken, unchanged', run: () => (taken.value = shaping.value = null) },
  { key: 't', words: 'lines or table', run: () => (asTable.value = !asTable.value) },
  { key: 'l', words: 'with or without last time', run: () => (withLast.value = !withLast.value) },
])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="pace.problem.value && !pace.data.value" :problem="pace.problem.value" />
    <p v-else-if="!pace.data.value || !ribbon.data.value" class="second" role="status">Reading where everybody is …</p>
    <p v-else-if="pace.data.value.sections.length === 0" class="second none">
      This edition has no section yet, so there is no pace to see. Add a section in the outline.
    </p>
    <template v-else>
      <PaceSections :pace="pace.data.value" :off="off" :with-key="!asTable" :with-last="withLast" @toggle="toggle" />
      <p class="controls">
        <span class="readout" role="status">{{ readout }}</span>
        <button
          v-if="pace.data.value.last"
          type="button"
          class="word-button small"
          :aria-pressed="withLast"
          :title="`Where each section would be, class by class, if it went as in ${pace.data.value.last}`"
          @click="withLast = !withLast"
        >
          {{ withLast ? 'without last time' : 'with last time' }}
        </button>
        <span v-if="!asTable" class="zooms" role="group" aria-label="How much of the term">
          <button v-for="one in zooms" :key="one" type="button" :aria-pressed="zoom === one" @click="zoom = one">
            {{ one }}
          </button>
        </span>
        <button type="button" class="word-button" :aria-pressed="asTable" @click="asTable = !asTable">
          {{ asTable ? 'as lines' : 'as a table' }}
        </button>
      </p>
      <PaceTable
        v-if="asTable"
        :pace="pace.data.value"
        :sections="sections"
        :with-last="withLast"
        @take="taken = $event"
      />
      <PaceChart
        v-else
        :pace="pace.data.value"
        :ribbon="ribbon.data.value"
        :sections="sections"
        :view="view"
        :at="taken ?? shaping ?? looked"
        :can-change="pace.data.value.canChange"
        :dragged="dragged"
        :with-last="withLast"
        @look="looked = $event"
        @take="take($event)"
        @drag="dragged = $event"
        @drop="drop($event)"
      />
      <ShapePanel
        v-if="shaping && sectionOf(shaping.section) && pace.data.value.canChange"
        :key="JSON.stringify(shaping)"
        :edition="edition"
        :pace="pace.data.value"
        :section="sectionOf(shaping.section)!"
        :place="shaping.place"
        :shape="shaping.shape"
        @close="shaping = null"
      />
      <TaughtPanel
        v-else-if="taken && takenSection && pace.data.value.canChange"
        :key="`${taken.section} ${taken.place}`"
        :edition="edition"
        :pace="pace.data.value"
        :section="takenSection"
        :place="taken.place"
        @close="taken = null"
        @shape="shape"
      />
    </template>
  </main>
  <TitleBlock v-if="pace.data.value" :edition="edition" :facts="facts" :can-change="pace.data.value.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto auto 1fr auto;
  min-height: 0;
}
.none {
  padding: var(--space-7) 0;
}
.controls {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
  padding: var(--space-5) 0 var(--space-4);
}
.readout {
  flex: 1;
  color: var(--ink-2);
}
.zooms {
  display: inline-flex;
  gap: var(--space-5);
}
.zooms button {
  color: var(--ink-2);
}
.zooms button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
  border-bottom: var(--stroke-strong) solid var(--ink);
}
</style>
