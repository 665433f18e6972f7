<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, useTemplateRef } from 'vue'
import { useViewpoint } from '../../foundation/useViewpoint'
import type { Answer, Line, Told } from './scoreLines'
import SectionKey from '../../look/marks/SectionKey.vue'
import ScoreCell from './ScoreCell.vue'
import ScoreField from './ScoreField.vue'
import SpreadMark from './SpreadMark.vue'
import type { Written } from './scoreWriting'
import { useCellKeys } from './useCellKeys'
import { useWrittenCells } from './useWrittenCells'

/** Students down, items across, what it comes to at the right; only the lines in view are drawn. */
const props = defineProps<{
  edition: number
  answer: Answer
  lines: Line[]
  /** Which items, by their places. */
  places: readonly number[]
  told: Told
  /** Whose total is explained. */
  explained: number | null
  /** The quiz whose questions are looked at. */
  asked: number | null
  /** What is written into it; null: it is only read. */
  written: Written | null
}>()
const emit = defineEmits<{
  explain: [student: number]
  ask: [quiz: number]
  why: [student: number, item: number]
  write: [student: number, item: number, text: string]
  paste: [text: string, line: number, columns: readonly number[]]
}>()

const LINE = 34
const COLUMN = 96
const viewpoint = useViewpoint()
const frame = useTemplateRef<HTMLElement>('frame')
const virtual = useVirtualizer(
  computed(() => ({
    count: props.lines.length,
    getScrollElement: () => frame.value,
    estimateSize: () => LINE,
    overscan: 6,
  })),
)
const drawn = computed(() =>
  virtual.value
    .getVirtualItems()
    .map(({ index, start, key }) => ({ line: props.lines[index]!, index, start, key: `${key}` })),
)
const columns = computed(() => ({
  gridTemplateColumns: `170px repeat(${props.places.length}, ${COLUMN}px) minmax(86px, 1fr)`,
  minWidth: `${170 + COLUMN * props.places.length + 86}px`,
}))
/** Of several sections each student says which. */
const several = computed(() => new Set(props.lines.map((line) => line.section.section)).size > 1)
const students = computed(() => props.lines.filter((line) => 'student' in line).length)

const { isWritten, textOf, isChanged, isUnread, first, keep, go } = useWrittenCells(
  () => props,
  (line) => virtual.value.scrollToIndex(line),
)

const { nameOf } = useCellKeys(
  frame,
  () => ({ lines: props.lines, columns: props.places.length }),
  (line) => virtual.value.scrollToIndex(line),
  ({ line, column }) => {
    const of = props.lines[line]
    if (of && 'student' in of) emit('why', of.student.student, props.answer.items[props.places[column]!]!.item)
  },
)
</script>

<template>
  <div ref="frame" class="frame" role="table" tabindex="0" aria-label="Scores" :aria-rowcount="lines.length + 1">
    <div role="row" class="row heads" aria-rowindex="1" :style="columns">
      <span role="columnheader" class="who">{{ students }} {{ students === 1 ? 'student' : 'students' }}</span>
      <span
        v-for="place in places"
        :key="place"
        role="columnheader"
        class="item"
        :title="`${answer.items[place]!.code} ${answer.items[place]!.title}`"
      >
        <button
          v-if="answer.items[place]!.kind === 'quiz'"
          type="button"
          class="title"
          :aria-expanded="asked === answer.items[place]!.item"
          @click="emit('ask', answer.items[place]!.item)"
        >
          {{ answer.items[place]!.code }} {{ answer.items[place]!.title }}
        </button>
        <span v-else class="title">{{ answer.items[place]!.code }} {{ answer.items[place]!.title }}</span>
        <span class="small">{{ answer.items[place]!.outOf ?? 'no score' }}</span>
      </span>
      <span role="columnheader" class="total">so far</span>
    </div>
    <div class="lines" role="presentation" :style="{ height: `${virtual.getTotalSize()}px` }">
      <div
        v-for="{ line, index, start, key } in drawn"
        :key="key"
        role="row"
        class="row line"
        :class="{ spread: !('student' in line) }"
        :aria-rowindex="index + 2"
        :style="{ ...columns, transform: `translateY(${start}px)`, height: `${LINE}px` }"
      >
        <template v-if="'student' in line">
          <span role="rowheader" class="who">
            <router-link
              :to="{
                name: 'one-student',
                params: { edition, student: line.student.student },
                query: { ...viewpoint.query.value, section: line.section.section },
              }"
              >{{ line.student.name }}</router-link
            >
            <SectionKey v-if="several" class="small" :letter="line.section.letter" :name="line.section.name" short />
          </span>
          <span
            v-for="(place, column) in places"
            :key="place"
            role="cell"
            tabindex="-1"
            class="cell"
            :class="line.student.cells[place]!.tone"
            :data-cell="nameOf({ line: index, column })"
          >
            <ScoreField
              v-if="isWritten(line.student, place)"
              :ref="(cell) => keep(`${index}:${place}`, cell)"
              :label="`${answer.items[place]!.code} ${answer.items[place]!.title}, ${line.student.name}`"
              :text="textOf(line.student, place)"
              :shown="line.student.cells[place]!.words"
              :is-changed="isChanged(line.student, place)"
              :is-unread="isUnread(line.student, place)"
              @write="(text) => emit('write', line.student.student, answer.items[place]!.item, text)"
              @paste="(text) => emit('paste', text, index - first, places.slice(places.indexOf(place)))"
              @go="(by) => go(index, place, by)"
            />
            <ScoreCell
              v-else
              :section="line.section.section"
              :student="line.student"
              :item="answer.items[place]!"
              :cell="line.student.cells[place]!"
              :told="told"
              @why="emit('why', line.student.student, answer.items[place]!.item)"
            />
          </span>
          <span role="cell" class="total">
            <button
              type="button"
              :aria-expanded="explained === line.student.student"
              :aria-label="`${line.student.soFar ?? 'nothing yet'}: what ${line.student.name}’s total is made of`"
              @click="emit('explain', line.student.student)"
            >
              {{ line.student.soFar ?? '–' }}
            </button>
          </span>
        </template>
        <template v-else>
          <span role="rowheader" class="who small">middle half of {{ line.section.name }}</span>
          <span v-for="place in places" :key="place" role="cell" class="cell"
            ><SpreadMark :spread="line.section.spreads[place] ?? null" :width="COLUMN - 18"
          /></span>
          <span role="cell" class="total"></span>
        </template>
      </div>
    </div>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  overflow: auto;
  min-height: 0;
}
.row {
  display: grid;
  align-items: baseline;
}
.heads {
  position: sticky;
  top: 0;
  z-index: 2;
  align-items: end;
  background: var(--paper);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding-block: var(--space-3);
  font-size: var(--size-small);
}
.item {
  display: grid;
  padding-right: var(--space-4);
}
.title {
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
  overflow: hidden;
  overflow-wrap: break-word;
  line-height: 1.25;
}
button.title {
  text-align: left;
  text-decoration: underline;
  text-decoration-color: var(--hair);
  text-underline-offset: 3px;
}
button.title:hover,
button.title[aria-expanded='true'] {
  text-decoration-color: currentColor;
}
.lines {
  position: relative;
}
.line {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  align-items: center;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.who {
  position: sticky;
  left: 0;
  z-index: 1;
  align-self: stretch;
  display: flex;
  align-items: center;
  gap: var(--space-3);
  background: var(--paper);
  white-space: nowrap;
  overflow: hidden;
}
.heads .who {
  align-items: end;
}
.who a {
  font-weight: 600;
  text-decoration: none;
}
.who a:hover,
.who a:focus-visible {
  text-decoration: underline;
}
.cell {
  display: flex;
  align-items: baseline;
  gap: var(--space-2);
  white-space: nowrap;
}
.quiet {
  color: var(--ink-2);
  font-size: var(--size-small);
}
.to-read {
  color: var(--accent);
  font-weight: 600;
}
.overdue > :deep(.words) {
  border-bottom: var(--stroke-hair) solid var(--accent);
}
.total {
  position: sticky;
  right: 0;
  align-self: stretch;
  display: flex;
  align-items: center;
  justify-content: end;
  padding-right: var(--space-4);
  background: var(--paper);
  white-space: nowrap;
}
.heads .total {
  align-items: end;
}
.total button:hover,
.total [aria-expanded='true'] {
  text-decoration: underline;
  text-underline-offset: 3px;
}
</style>
