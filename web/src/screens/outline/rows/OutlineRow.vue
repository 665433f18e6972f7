<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import { counted } from '../../../foundation/words'
import SectionKey from '../../../look/marks/SectionKey.vue'
import StateMark from '../../../look/marks/StateMark.vue'
import CheckMark from '../../../parts/why/CheckMark.vue'
import GroupPanel from '../GroupPanel.vue'
import HandedIn from './HandedIn.vue'
import ItemPanel from '../ItemPanel.vue'
import RowLife from './RowLife.vue'
import type { Life } from './lives'
import { type Row, hiddenBy, onlyIn, titleOf } from '../outlineRows'

/** One row: what it is at the left, what becomes of it in the sections at the right; opened, it is changed under itself. */
const props = defineProps<{
  row: Row
  edition: number
  sections: Schemas['OutlineSection'][]
  canChange: boolean
  opened: boolean
  folded: boolean
  chosen: boolean
  /** Some row is chosen: then every one can be by a press on its box. */
  choosing: boolean
  lives: Life[]
  /** What was noticed of it. */
  checks: readonly Schemas['RowCheck'][]
  counts?: { letter: string; name: string; done: number; of: number }[]
  show: 'lines' | 'dates' | 'handed-in'
  days: number
}>()
const emit = defineEmits<{
  open: []
  close: []
  fold: []
  choose: [extend: boolean]
  add: []
  remove: []
  move: [by: -1 | 1]
}>()
const levels = useLevels()
const renaming = ref(false)
const hidden = computed(() => hiddenBy(props.row, levels.value))
const team = useAnswer(() => questions.notes(props.edition))
const notes = computed(() => {
  const { row } = props
  const place = row.level === 'unit' ? row.unit.lineage : row.level === 'lesson' ? row.lesson.lineage : row.item.lineage
  return (team.data.value ?? []).filter((note) => note.place === place).length
})
const names = computed(() => Object.fromEntries(props.sections.map((one) => [one.letter, one.name])))
const differs = computed(() =>
  props.row.level === 'unit' ? [] : props.row.level === 'item' ? props.row.item.differs : props.row.lesson.differs,
)

/** A press opens the row, or chooses it with Ctrl or Shift held; on the title of an open one it is renamed. */
function press(event: MouseEvent): void {
  if (props.canChange && (event.ctrlKey || event.metaKey || event.shiftKey)) emit('choose', event.shiftKey)
  else if (!props.opened) emit('open')
  else if (props.canChange && props.row.level === 'item' && !renaming.value) void rename()
  else close()
}

async function rename(): Promise<void> {
  renaming.value = true
  await nextTick()
}

/** Renamed, or left as it was: the keys are where they were. */
async function renamed(): Promise<void> {
  renaming.value = false
  await nextTick()
  document.querySelector<HTMLElement>(`[data-stop="${props.row.key}"]`)?.focus()
}

function close(): void {
  renaming.value = false
  emit('close')
}
</script>

<template>
  <div class="row" :class="[row.level, { opened, chosen, choosing }]" :data-row="row.key">
    <div class="what">
      <button
        v-if="canChange"
        type="button"
        class="pick"
        role="checkbox"
        tabindex="-1"
        :aria-checked="chosen"
        :aria-label="`Choose ${titleOf(row)}`"
        @click="emit('choose', $event.shiftKey)"
      >
        <v-icon :icon="chosen ? '$checkboxOn' : '$checkboxOff'" size="16" />
      </button>
      <span v-if="row.level !== 'lesson'" class="code">{{
        row.level === 'unit' ? (row.unit.number ?? '–') : row.item.code
      }}</span>
      <button
        v-if="row.level !== 'item'"
        type="button"
        class="fold"
        tabindex="-1"
        :aria-expanded="!folded"
        :aria-label="`${folded ? 'Unfold' : 'Fold'} ${titleOf(row)}`"
        @click="emit('fold')"
      >
        <v-icon icon="$dropdown" size="14" :class="{ folded }" />
      </button>
      <component :is="row.level === 'unit' ? 'h2' : row.level === 'lesson' ? 'h3' : 'span'" class="name">
        <button
          type="button"
          class="title"
          :data-stop="row.key"
          :aria-expanded="opened"
          :aria-pressed="choosing ? chosen : undefined"
          :title="titleOf(row)"
          @click="press"
          @keydown.alt.up.prevent="canChange && emit('move', -1)"
          @keydown.alt.down.prevent="canChange && emit('move', 1)"
        >
          {{ titleOf(row) }}
        </button>
      </component>
      <span class="small words" :title="row.words">{{ row.words }}</span>
      <span
        v-if="row.level === 'item' && row.item.condition"
        class="small words condition"
        :title="row.item.condition"
        >{{ row.item.condition }}</span
      >
      <span class="end">
        <CheckMark class="small" :checks="checks" />
        <span v-if="notes" class="small">{{ counted(notes, 'note', 'notes') }}</span>
        <span v-if="hidden" class="small state" :title="hidden"
          ><StateMark state="unpublished" /><span class="said-only">{{ hidden }}</span></span
        >
        <span v-if="onlyIn(row)" class="small state" :title="`Only in ${names[onlyIn(row)!] ?? ''}`">
          only <SectionKey :letter="onlyIn(row)!" :name="names[onlyIn(row)!] ?? ''" short />
        </span>
        <SectionKey
          v-for="letter in differs"
          :key="letter"
          :letter="letter"
          :name="`different in ${names[letter]}`"
          short
        />
      </span>
    </div>
    <div class="lives">
      <HandedIn v-if="show === 'handed-in' && counts" :counts="counts" />
      <RowLife v-else-if="show !== 'handed-in' && lives.length" :lives="lives" :days="days" :show="show" />
    </div>
    <button
      v-if="canChange"
      type="button"
      class="insert"
      tabindex="-1"
      :aria-label="`Add a row under ${titleOf(row)}`"
      @click="emit('add')"
    ></button>
  </div>
  <template v-if="opened">
    <ItemPanel
      v-if="row.level === 'item'"
      :item="row.item"
      :edition="edition"
      :sections="sections.length"
      :can-change="canChange"
      :renaming="renaming"
      @renamed="renamed"
      @rename="rename"
      @close="close"
      @remove="emit('remove')"
      @move="emit('move', $event)"
    />
    <GroupPanel
      v-else
      :row="row"
      :edition="edition"
      :sections="sections"
      :can-change="canChange"
      @close="close"
      @remove="emit('remove')"
      @move="emit('move', $event)"
    />
  </template>
</template>

<style scoped src="./outlineRow.css"></style>
