<script setup lang="ts">
import { computed, toRef, useTemplateRef } from 'vue'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import AddRow from './adding/AddRow.vue'
import ChosenPanel from './chosen/ChosenPanel.vue'
import CoursePanel from './CoursePanel.vue'
import LifeScale from './rows/LifeScale.vue'
import { useChecks } from '../../parts/why/useChecks'
import OutlineRow from './rows/OutlineRow.vue'
import OutlineTools from './OutlineTools.vue'
import { groundOf } from './rows/lives'
import { useLives } from './rows/useLives'
import { useRowDragging } from './rows/useRowDragging'
import { useOutlineScreen } from './useOutlineScreen'

/** What is the course, and where is everybody in it? Units, lessons, items; a row opens in place, under itself. */
const props = defineProps<{ edition: number }>()
const checksOf = useChecks(() => props.edition)
const levels = useLevels()

const edition = toRef(props, 'edition')
const list = useTemplateRef<HTMLElement>('list')
const screen = useOutlineScreen(edition, list)
const {
  outline,
  problem,
  again,
  rows,
  facts,
  edits,
  view,
  shownRows,
  folded,
  show,
  opened,
  adding,
  newTitle,
  chosen,
  chosenRows,
  isSettings,
} = screen
const { lives, counts, scale } = useLives(edition, rows, show)

/** The moment and the closures, behind the lines of every row. */
const ground = computed(() => (scale.value && show.value === 'lines' ? groundOf(scale.value) : undefined))

useRowDragging(list, shownRows, (row, above) => void screen.drop(row, above), screen.canChange)
</script>

<template>
  <main class="body" :class="show">
    <ProblemNote v-if="problem && !outline" :problem="problem" :again="again" />
    <p v-else-if="!outline" class="second" role="status">Reading the course …</p>
    <template v-else>
      <OutlineTools
        v-model="view"
        v-model:show="show"
        :edition="edition"
        :outline="outline"
        :all-folded="screen.allFolded.value"
        @fold="screen.foldAll()"
        @settings="isSettings = !isSettings"
      />
      <div class="heads">
        <span class="small" role="status">{{ shownRows.length === 1 ? '1 row' : `${shownRows.length} rows` }}</span>
        <LifeScale :ribbon="scale" :sections="outline.sections" :show="show" />
      </div>
      <div class="scroll" tabindex="-1">
        <ProblemNote v-if="edits.problem.value" :problem="edits.problem.value">
          <button type="button" class="word-button" @click="edits.forget()">Close</button>
        </ProblemNote>
        <p v-if="rows.length === 0" class="second none">
          This course has no {{ levels.unit.many }} yet. Add the first one: press <kbd>n</kbd> or the words below.
        </p>
        <p v-else-if="shownRows.length === 0" class="second none">Nothing matches this filter.</p>
        <div ref="list" class="list" :style="ground">
          <template v-for="row in shownRows" :key="row.key">
            <OutlineRow
              :row="row"
              :edition="edition"
              :sections="outline.sections"
              :can-change="outline.canChange"
              :opened="opened === row.key"
              :folded="folded.has(row.key)"
              :chosen="screen.isChosen(row)"
              :choosing="chosen.size > 0"
              :lives="lives.get(row.key) ?? []"
              :counts="show === 'handed-in' ? counts.get(row.key) : undefined"
              :checks="checksOf(row.key)"
              :show="show"
              :days="scale?.days ?? 1"
              @open="screen.open(row.key)"
              @close="screen.close(row.key)"
              @fold="screen.fold(row.key)"
              @choose="screen.choose(row, $event)"
              @add="screen.addUnder(row)"
              @remove="screen.remove(row)"
              @move="screen.move(row, $event)"
            />
            <AddRow
              v-if="adding?.under === row.key"
              v-model:written="newTitle"
              :edition="edition"
              :under="row"
              :asked="adding.kind"
              :sections="outline.sections"
              @added="screen.addNext"
              @close="adding = null"
            />
          </template>
        </div>
        <AddRow
          v-if="outline.canChange && adding && adding.under === null"
          v-model:written="newTitle"
          :edition="edition"
          :under="rows.at(-1) ?? null"
          asked="unit"
          :sections="outline.sections"
          @close="adding = null"
        />
        <p v-else-if="outline.canChange" class="last">
          <button type="button" class="word-button small" @click="adding = { under: null }">
            add {{ levels.unit.a }}
          </button>
        </p>
      </div>
      <CoursePanel
        v-if="isSettings && outline.canChange"
        :edition="edition"
        :settings="outline.settings"
        @close="isSettings = false"
      />
      <ChosenPanel
        v-else-if="chosenRows.length > 0 && outline.canChange"
        :edition="edition"
        :chosen="chosenRows"
        :rows="rows"
        :sections="outline.sections"
        @done="screen.letGo()"
        @close="screen.letGo()"
      />
    </template>
  </main>
  <TitleBlock v-if="outline" :edition="edition" :facts="facts" :can-change="outline.canChange" />
</template>

<style scoped>
.body {
  --left: min(520px, 46%);
  display: grid;
  grid-template-rows: auto auto 1fr auto;
  min-height: 0;
}
.heads {
  display: grid;
  grid-template-columns: var(--left) 1fr;
  align-items: end;
  padding-top: var(--space-2);
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.scroll {
  position: relative;
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-8);
}
.none {
  padding: var(--space-7) 0;
}
.last {
  padding: var(--space-5) 0;
}
</style>
