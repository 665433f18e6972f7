<script setup lang="ts">
import { type CSSProperties, computed, ref, toRef, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useDraggable } from 'vue-draggable-plus'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import AddRow from './adding/AddRow.vue'
import ChosenPanel from './chosen/ChosenPanel.vue'
import CoursePanel from './CoursePanel.vue'
import LifeScale from './rows/LifeScale.vue'
import OutlineRow from './rows/OutlineRow.vue'
import OutlineTools from './OutlineTools.vue'
import { useLives } from './rows/useLives'
import { useOutlineScreen } from './useOutlineScreen'

/** What is the course, and where is everybody in it? Units, lessons, items; a row opens in place, under itself. */
const props = defineProps<{ edition: number }>()
const levels = useLevels()
const route = useRoute()

const edition = toRef(props, 'edition')
const list = useTemplateRef<HTMLElement>('list')
const screen = useOutlineScreen(edition, list)
const { outline, problem, rows, facts, edits, view, shownRows, folded, show, opened, adding, chosen, chosenItems } =
  screen
const { lives, counts, scale } = useLives(edition, rows)
const items = computed(() => rows.value.flatMap((row) => (row.level === 'item' ? [row.item] : [])))
/** Whether what holds for the whole course is being changed. */
const whole = ref(route.query.do === 'settings')
if (route.query.do === 'add') adding.value = { under: '', kind: 'unit' }
const under = computed(() => shownRows.value.find((row) => row.key === adding.value?.under) ?? null)

/** The moment and the closures, behind the lines of every row. */
const ground = computed<CSSProperties>(() => {
  const term = scale.value
  if (!term || show.value !== 'lines') return {}
  const at = (place: number, wide: number) => `${((100 * place) / (term.days - wide)).toFixed(2)}%`
  const closed = term.closures.map(({ from, to }) => ({
    left: at(from, to - from),
    wide: `${(100 * (to - from)) / term.days}%`,
  }))
  return {
    '--ground': [
      'linear-gradient(var(--accent), var(--accent))',
      ...closed.map(() => 'repeating-linear-gradient(135deg, transparent 0 4px, var(--hair) 4px 5px)'),
    ].join(','),
    '--ground-at': [`${at(term.momentAt, 0)} 0`, ...closed.map(({ left }) => `${left} 0`)].join(','),
    '--ground-size': ['1px 100%', ...closed.map(({ wide }) => `${wide} 100%`)].join(','),
  } as CSSProperties
})

// Sortable moves the row itself, by mouse or finger; here it is put back where it was, and the course decides where it goes.
const sorting = useDraggable(list, {
  immediate: false,
  draggable: '.row',
  filter: 'input, .pick, .fold, .insert',
  preventOnFilter: false,
  delay: 150,
  delayOnTouchOnly: true,
  forceFallback: true,
  fallbackTolerance: 4,
  onEnd({ item, oldIndex, newIndex }) {
    if (oldIndex === undefined || newIndex === undefined || oldIndex === newIndex) return
    const moved = shownRows.value[oldIndex]!
    const without = shownRows.value.filter((_, n) => n !== oldIndex)
    list.value?.insertBefore(item, list.value.querySelector(`[data-row="${shownRows.value[oldIndex + 1]?.key}"]`))
    if (outline.value?.canChange) void screen.drop(moved, without[newIndex - 1] ?? null)
  },
})
watch(list, (there) => there && outline.value?.canChange && sorting.start(), { flush: 'post' })
</script>

<template>
  <main class="body" :class="show">
    <ProblemNote v-if="problem && !outline" :problem="problem" />
    <p v-else-if="!outline" class="second" role="status">Reading the course …</p>
    <template v-else>
      <OutlineTools
        v-model="view"
        v-model:show="show"
        :edition="edition"
        :outline="outline"
        :all-folded="screen.allFolded.value"
        @fold="screen.foldAll()"
        @settings="whole = !whole"
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
              :items="items"
              :edition="edition"
              :sections="outline.sections"
              :can-change="outline.canChange"
              :opened="opened === row.key"
              :folded="folded.has(row.key)"
              :chosen="chosen.size > 0 && screen.isChosen(row)"
              :choosing="chosen.size > 0"
              :lives="lives.get(row.key) ?? []"
              :counts="show === 'handed-in' ? counts.get(row.key) : undefined"
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
              v-if="adding && under === row"
              :edition="edition"
              :under="row"
              :sections="outline.sections"
              @close="adding = null"
            />
          </template>
        </div>
        <AddRow
          v-if="outline.canChange && adding && !under"
          :edition="edition"
          :under="rows.at(-1) ?? null"
          asked="unit"
          :sections="outline.sections"
          @close="adding = null"
        />
        <p v-else-if="outline.canChange" class="last">
          <button type="button" class="word-button small" @click="adding = { under: '', kind: 'unit' }">
            add {{ levels.unit.a }}
          </button>
        </p>
      </div>
      <CoursePanel
        v-if="whole && outline.canChange"
        :edition="edition"
        :settings="outline.settings"
        @close="whole = false"
      />
      <ChosenPanel
        v-else-if="chosenItems.length > 0 && outline.canChange"
        :edition="edition"
        :items="chosenItems"
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
