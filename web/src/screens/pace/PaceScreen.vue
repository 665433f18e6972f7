<script setup lang="ts">
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import PaceChart from './PaceChart.vue'
import PaceControls from './PaceControls.vue'
import PaceSections from './PaceSections.vue'
import PaceTable from './PaceTable.vue'
import ShapePanel from './ShapePanel.vue'
import TaughtPanel from './TaughtPanel.vue'
import { usePaceScreen } from './usePaceScreen'

/** Where is everybody? */
const props = defineProps<{ edition: number }>()

const {
  pace,
  ribbon,
  off,
  zoom,
  asTable,
  withLast,
  looked,
  taken,
  takenSection,
  dragged,
  shaping,
  sections,
  view,
  sectionOf,
  readout,
  facts,
  toggle,
  take,
  drop,
  shape,
} = usePaceScreen(props)
</script>

<template>
  <main class="body">
    <ProblemNote v-if="pace.problem.value && !pace.data.value" :problem="pace.problem.value" :again="pace.refetch" />
    <p v-else-if="!pace.data.value || !ribbon.data.value" class="second" role="status">Reading where everybody is …</p>
    <p v-else-if="pace.data.value.sections.length === 0" class="second none">
      This edition has no section yet, so there is no pace to see. Add a section in the outline.
    </p>
    <template v-else>
      <PaceSections :pace="pace.data.value" :off="off" :with-key="!asTable" :with-last="withLast" @toggle="toggle" />
      <PaceControls
        v-model:zoom="zoom"
        v-model:as-table="asTable"
        v-model:with-last="withLast"
        :readout="readout"
        :last="pace.data.value.last"
      />
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
</style>
