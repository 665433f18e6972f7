<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef } from 'vue'
import { useRoute } from 'vue-router'
import { useScreenKeys } from '../../foundation/useKeys'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import CoursePanel from './CoursePanel.vue'
import JoinSection from './JoinSection.vue'
import OutlineRow from './OutlineRow.vue'
import WhoseChoice from './WhoseChoice.vue'
import { dropOn, nudge } from './outlineMoves'
import { type Row, counted } from './outlineRows'
import { useOutline } from './useOutline'
import { useOutlineEdits } from './useOutlineEdits'

/** What is the course? Units, lessons, items; a row opens in place, under itself. */
const props = defineProps<{ edition: number }>()
const levels = useLevels()

const route = useRoute()
const { outline, problem, rows, facts } = useOutline(toRef(props, 'edition'))
const edits = useOutlineEdits(toRef(props, 'edition'))
/** The row that is open; it may be named by where one comes from. */
const opened = ref(typeof route.query.row === 'string' ? route.query.row : null)
const dragged = ref<Row | null>(null)
const unitTitle = ref('')
const list = useTemplateRef<HTMLElement>('list')
const items = computed(() => rows.value.flatMap((row) => (row.level === 'item' ? [row.item] : [])))
/** Whether what holds for the whole course is being changed. */
const whole = ref(false)
/** Whose a new unit is to be: the course's, or one section's only. */
const owner = ref<number | null>(null)

function step(by: number): void {
  const stops = [...(list.value?.querySelectorAll<HTMLElement>('[data-stop]') ?? [])]
  const at = stops.indexOf(document.activeElement as HTMLElement)
  stops[at < 0 ? 0 : Math.min(stops.length - 1, Math.max(0, at + by))]?.focus()
}

useScreenKeys([
  { key: 'ArrowDown', words: 'to the next row', run: () => step(1) },
  { key: 'ArrowUp', words: 'to the row before', run: () => step(-1) },
  { key: 'Enter', words: 'open the row' },
  { key: 'Escape', words: 'close it again, unchanged', run: () => opened.value && close(opened.value) },
  { key: 'Alt+↑ ↓', words: 'move the row' },
])

const focusOn = (key: string) => list.value?.querySelector<HTMLElement>(`[data-stop="${key}"]`)?.focus()

/** Closes a row and leaves the focus where it was opened from. */
function close(key: string): void {
  opened.value = null
  focusOn(key)
}

async function move(row: Row, by: -1 | 1): Promise<void> {
  if (edits.busy.value) return
  await edits.move(nudge(rows.value, row, by))
  await nextTick()
  focusOn(row.key)
}

async function drop(target: Row): Promise<void> {
  if (dragged.value) await edits.move(dropOn(dragged.value, target))
  dragged.value = null
}

async function remove(row: Row): Promise<void> {
  if (await edits.remove(row)) opened.value = null
}

async function addUnit(): Promise<void> {
  if (await edits.addUnit(unitTitle.value, outline.value?.units.at(-1)?.id ?? null, owner.value)) unitTitle.value = ''
}
</script>

<template>
  <main class="body">
    <ProblemNote v-if="problem && !outline" :problem="problem" />
    <p v-else-if="!outline" class="second" role="status">Reading the course …</p>
    <template v-else>
      <p class="follow ruled-head">
        <span class="small">{{
          outline.sections.length === 0 ? 'No section follows this edition' : 'Followed by'
        }}</span>
        <span v-for="section in outline.sections" :key="section.id">
          <SectionKey :letter="section.letter" :name="section.name" />
          <span class="small size">{{ counted(section.students, 'student', 'students') }}</span>
        </span>
        <JoinSection v-if="outline.canChange" :edition="edition" />
        <button
          v-if="outline.canChange"
          type="button"
          class="word-button small whole"
          :title="`What students see of ${levels.item.many} before they open, how they are numbered, what the levels are called`"
          @click="whole = !whole"
        >
          {{ outline.settings.before }}, numbered
          {{ outline.settings.codes === 'straight' ? 'straight through' : `by ${levels.unit.one}` }}
        </button>
        <span v-if="outline.state === 'resting'" class="rest">A past edition: it can be read, not changed</span>
      </p>
      <div ref="list" class="list" tabindex="-1">
        <ProblemNote v-if="edits.problem.value" :problem="edits.problem.value">
          <button type="button" class="word-button" @click="edits.forget()">Leave it</button>
        </ProblemNote>
        <p v-if="rows.length === 0" class="second none">
          This course has no {{ levels.unit.many }} yet. Name the first one below.
        </p>
        <OutlineRow
          v-for="row in rows"
          :key="row.key"
          :row="row"
          :items="items"
          :edition="edition"
          :sections="outline.sections.length"
          :section-list="outline.sections"
          :can-change="outline.canChange"
          :opened="opened === row.key"
          @open="opened = row.key"
          @close="close(row.key)"
          @remove="remove(row)"
          @move="move(row, $event)"
          @drag="dragged = row"
          @drop="drop(row)"
        />
        <form v-if="outline.canChange" class="add" novalidate @submit.prevent="addUnit">
          <label class="field-name" for="new-unit">A new {{ levels.unit.one }}</label>
          <input id="new-unit" v-model="unitTitle" type="text" maxlength="200" autocomplete="off" />
          <WhoseChoice v-model="owner" :sections="outline.sections" />
          <v-btn type="submit" :disabled="!unitTitle.trim() || edits.busy.value">Add the {{ levels.unit.one }}</v-btn>
        </form>
      </div>
      <CoursePanel
        v-if="whole && outline.canChange"
        :edition="edition"
        :settings="outline.settings"
        @close="whole = false"
      />
    </template>
  </main>
  <TitleBlock v-if="outline" :edition="edition" :facts="facts" :can-change="outline.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr auto;
  min-height: 0;
}
.follow {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-8);
}
.size {
  padding-left: var(--space-4);
}
.whole {
  margin-left: auto;
}
.rest {
  margin-left: auto;
  color: var(--accent);
}
.none {
  padding: var(--space-7) 0;
}
.add {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-7) 0 0;
}
.add input {
  width: 340px;
}
.list {
  position: relative;
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-8);
}
</style>
