<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { capital, useLevels } from '../../foundation/levels'
import type { Schemas } from '../../foundation/api/client'
import SectionKey from '../../look/marks/SectionKey.vue'
import DateRow from './DateRow.vue'
import { type Block, type Place, copied, lineHeight, moved } from './dateBlock'
import type { Answer, Field } from './dateCells'
import type { Line, Row } from './dateRows'

/**
 * Items down, sections across, only the lines in view drawn. A cell is a button for each of its dates; keys and the mouse
 * make blocks of them, which are opened, copied and pasted into.
 */
const props = defineProps<{
  answer: Answer
  /** What was noticed of a row, such as `item-12`. */
  checksOf: (row: string) => readonly Schemas['RowCheck'][]
  lines: Line[]
  rows: Row[]
  fields: readonly Field[]
  /** The row it opens at; less than 0: the first. */
  first: number
  canChange: boolean
}>()
const levels = useLevels()
const block = defineModel<Block | null>({ required: true })
const emit = defineEmits<{ open: []; paste: [text: string] }>()

const frame = useTemplateRef<HTMLElement>('frame')
const lineOf = (row: number) => props.lines.findIndex((line) => 'place' in line && line.place === row)
const virtual = useVirtualizer(
  computed(() => ({
    count: props.lines.length,
    getScrollElement: () => frame.value,
    estimateSize: () => lineHeight,
    initialOffset: () => Math.max(0, lineOf(props.first)) * lineHeight,
    overscan: 4,
    scrollPaddingStart: lineHeight,
  })),
)
/** Every row has the same columns, as wide as the frame allows. */
const columns = computed(() => ({
  gridTemplateColumns: `minmax(330px, 1.3fr) repeat(${props.answer.sections.length}, minmax(0, 1fr))`,
  width: `max(100%, ${330 + 172 * props.answer.sections.length}px)`,
}))
const drawn = computed(() =>
  virtual.value.getVirtualItems().map(({ index, start, key }) => ({ line: props.lines[index]!, start, key: `${key}` })),
)
/** The one cell that the Tab key comes to. */
const active = computed<Block>(() => {
  const first = { row: 0, column: 0 }
  return block.value ?? { field: props.fields[0]!, from: first, to: first }
})
const dragging = ref(false)

function begin(field: Field, place: Place, event: PointerEvent): void {
  if (event.button !== 0) return
  dragging.value = true
  const from = event.shiftKey && block.value?.field === field ? block.value.from : place
  block.value = { field, from, to: place }
}

function extend(place: Place): void {
  if (dragging.value && block.value) block.value = { ...block.value, to: place }
}

function end(): void {
  if (!dragging.value) return
  dragging.value = false
  if (props.canChange) emit('open')
}

function bringIntoView(row: number): void {
  virtual.value.scrollToIndex(lineOf(row))
}

async function press(event: KeyboardEvent): Promise<void> {
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    block.value = active.value
    if (props.canChange) emit('open')
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const next = moved(
    active.value,
    event.key,
    event.shiftKey,
    props.fields,
    props.rows.length,
    props.answer.sections.length,
  )
  if (!next) return
  event.preventDefault()
  block.value = next
  bringIntoView(next.to.row)
  await nextTick()
  requestAnimationFrame(focusActive)
}

function focusActive(): void {
  frame.value?.querySelector<HTMLElement>('button[tabindex="0"]')?.focus({ preventScroll: false })
}

function copy(event: ClipboardEvent): void {
  if (!block.value) return
  event.preventDefault()
  event.clipboardData?.setData('text/plain', copied(block.value, props.rows))
}

function paste(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain')
  if (!text || !props.canChange) return
  event.preventDefault()
  block.value = active.value
  emit('paste', text)
}

useEventListener(window, 'pointerup', end)
// Another filter, other lines: what was chosen is not there any more.
watch(
  () => props.rows,
  (rows, before) => {
    if (rows.length !== before.length || rows.some((row, n) => row.item !== before[n]?.item)) block.value = null
  },
)
defineExpose({ focusActive })
</script>

<template>
  <div
    ref="frame"
    class="frame"
    role="grid"
    :aria-label="`Dates of every ${levels.item.one} in every section`"
    :aria-rowcount="rows.length + 1"
    :aria-colcount="answer.sections.length + 1"
    @keydown="press"
    @copy="copy"
    @paste="paste"
  >
    <div role="row" class="row heads" aria-rowindex="1" :style="columns">
      <span role="columnheader" class="item">{{ capital(levels.item.one) }}</span>
      <span v-for="section in answer.sections" :key="section.id" role="columnheader" class="head">
        <SectionKey :letter="section.letter" :name="section.name" />
        <span v-if="section.pretend" class="small">pretend</span>
        <span v-else-if="!section.lacking" class="small">{{ section.classes }} classes</span>
        <span v-else class="small accent" :title="section.toCheck.join('\n')">{{ section.lacking }} short</span>
      </span>
    </div>
    <div class="lines" role="presentation" :style="{ height: `${virtual.getTotalSize()}px` }">
      <template v-for="{ line, start, key } in drawn" :key="key">
        <div
          v-if="'head' in line"
          role="row"
          class="unit"
          :style="{ transform: `translateY(${start}px)`, height: `${lineHeight}px` }"
        >
          <span role="rowheader" :aria-colspan="answer.sections.length + 1"
            >{{ line.head.number ?? '–' }} {{ line.head.title }}</span
          >
        </div>
        <DateRow
          v-else
          :row="line.row"
          :checks="checksOf(`item-${line.row.item}`).filter((check) => check.section === null)"
          :at="line.place"
          :start="start"
          :columns="columns"
          :sections="answer.sections"
          :fields="fields"
          :block="block"
          :active="active"
          @enter="extend"
          @begin="begin"
        />
      </template>
    </div>
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  overflow: auto;
  min-height: 0;
  border-top: var(--stroke-hair) solid var(--ink);
}
.row {
  display: grid;
}
.heads {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--paper);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.head,
.heads .item {
  display: flex;
  align-items: baseline;
  gap: var(--space-3);
  padding: var(--space-3) var(--space-4);
  white-space: nowrap;
}
.lines {
  position: relative;
}
.unit {
  position: absolute;
  top: 0;
  left: 0;
  right: 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.unit {
  display: flex;
  align-items: end;
  padding-bottom: var(--space-3);
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-color: var(--hair);
}
.unit span {
  position: sticky;
  left: 0;
}
.item {
  position: sticky;
  left: 0;
  z-index: 1;
  background: var(--paper);
  padding: var(--space-2) var(--space-5) 0 0;
  overflow: hidden;
}
.heads .item {
  padding-left: 0;
}
</style>
