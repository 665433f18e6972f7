<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { type Stretch, holds, step } from './yearSheet'

/** A term's days, a month a row: what is closed is hatched; some are taken by dragging over them, or by keys. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer']; taken: Stretch | null }>()
const emit = defineEmits<{ take: [stretch: Stretch | null]; open: [] }>()

const sheet = useTemplateRef<HTMLElement>('sheet')
const dragging = ref(false)
/** The day that has the keys. */
const at = computed(() => props.taken?.head ?? props.calendar.today)
const isThere = computed(() => props.calendar.months.some((month) => month.days.some((day) => day.date === at.value)))
const entry = computed(() => (isThere.value ? at.value : props.calendar.first))
const marksOf = computed(() => new Map(props.calendar.marks.map((mark) => [mark.id, mark])))
const stateWords: Record<string, string> = {
  class: 'classes',
  closed: 'closed',
  free: 'no classes on this weekday',
  outside: 'outside the term',
}

const marks = (day: Schemas['CalendarDay']) => day.marks.map((id) => marksOf.value.get(id)!)
const isMarked = (day: Schemas['CalendarDay'], kind: string) => marks(day).some((mark) => mark.kind === kind)
/** What a day is called: its week's letter, or its own; a weekday needs no other name. */
function shortLabel({ label }: Schemas['CalendarDay']): string {
  if (!label || /^(mon|tue|wed|thu|fri|sat|sun)$/.test(label)) return ''
  return label.replace(/-(mon|tue|wed|thu|fri|sat|sun)$/, '')
}

const said = (day: Schemas['CalendarDay']) =>
  [
    day.words,
    stateWords[day.state],
    ...(day.label ? [props.calendar.labels.find((one) => one.label === day.label)?.words ?? day.label] : []),
    ...marks(day).map((mark) => [mark.name, mark.facts].filter((part) => part !== '').join(': ')),
  ].join(', ')

function grip(event: PointerEvent, date: string): void {
  if (event.button !== 0 || !props.calendar.canChange) return
  dragging.value = true
  emit('take', event.shiftKey && props.taken ? { ...props.taken, head: date } : { anchor: date, head: date })
}

function drag(event: PointerEvent): void {
  if (!dragging.value || !props.taken) return
  const under = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-date]')
  const date = under?.dataset.date
  if (date && date !== props.taken.head) emit('take', { ...props.taken, head: date })
}

function drop(): void {
  if (dragging.value) emit('open')
  dragging.value = false
}

async function press(event: KeyboardEvent, date: string): Promise<void> {
  if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    if (!props.calendar.canChange) return
    if (!holds(props.taken, date)) emit('take', { anchor: date, head: date })
    emit('open')
    return
  }
  if (!['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End'].includes(event.key)) return
  event.preventDefault()
  const head = step(props.calendar.months, date, event.key)
  emit('take', { anchor: event.shiftKey ? (props.taken?.anchor ?? date) : head, head })
  await nextTick()
  sheet.value?.querySelector<HTMLElement>(`[data-date="${head}"]`)?.focus()
}
</script>

<template>
  <div
    ref="sheet"
    class="sheet-of-days"
    role="grid"
    aria-label="Days of the term, a month a row"
    aria-multiselectable="true"
    @pointermove="drag"
    @pointerup="drop"
    @pointercancel="dragging = false"
  >
    <div v-for="month in calendar.months" :key="month.name" class="month" role="row">
      <span class="name" role="rowheader" :title="month.name"
        >{{ month.name.slice(0, -5) }}<span class="said-only">{{ month.name.slice(-5) }}</span></span
      >
      <button
        v-for="day in month.days"
        :key="day.date"
        type="button"
        role="gridcell"
        class="day"
        :class="[
          day.state,
          {
            extra: isMarked(day, 'extra'),
            special: isMarked(day, 'special'),
            taken: holds(taken, day.date),
            today: day.date === calendar.today,
            monday: day.words.startsWith('Mon'),
          },
        ]"
        :data-date="day.date"
        :tabindex="day.date === entry ? 0 : -1"
        :aria-selected="holds(taken, day.date)"
        :title="said(day)"
        @pointerdown.prevent="grip($event, day.date)"
        @keydown="press($event, day.date)"
      >
        <span class="said-only">{{ said(day) }}</span>
        <b aria-hidden="true">{{ Number(day.date.slice(8)) }}</b>
        <i aria-hidden="true">{{ day.words.slice(0, 2) }}</i>
        <u aria-hidden="true">{{ shortLabel(day) }}</u>
      </button>
    </div>
  </div>
</template>

<style scoped>
.sheet-of-days {
  display: grid;
  touch-action: none;
  user-select: none;
}
.month {
  display: grid;
  grid-template-columns: 96px repeat(31, minmax(0, 1fr));
  border-bottom: var(--stroke-hair) solid var(--hair);
}
.month:first-child {
  border-top: var(--stroke-hair) solid var(--ink);
}
.name {
  align-self: center;
  font-weight: 600;
}
.day {
  position: relative;
  display: grid;
  justify-items: center;
  padding: var(--space-2) 0 var(--space-3);
  border-left: var(--stroke-hair) solid var(--faint-hair);
  line-height: 1.25;
  font-size: var(--size-small);
}
.day.monday {
  border-left-color: var(--line);
}
.day b {
  font-weight: 600;
  font-size: var(--size-text);
}
.day i,
.day u {
  font-style: normal;
  text-decoration: none;
  color: var(--ink-2);
}
.day u {
  min-height: 1.25em;
  font-weight: 700;
}
.day.free b,
.day.outside b {
  font-weight: 400;
  color: var(--ink-2);
}
.day.free {
  background: var(--faint-hair);
}
.day.outside {
  border-left-color: transparent;
}
.day.closed {
  background: repeating-linear-gradient(45deg, transparent 0 4px, var(--line) 4px 5px);
}
.day.closed b,
.day.closed i {
  background: var(--paper);
  padding: 0 var(--space-1);
}
.day.extra::before {
  content: '';
  position: absolute;
  inset: 0;
  border: var(--stroke-strong) solid var(--ink);
}
.day.special::after {
  content: '';
  position: absolute;
  inset: auto var(--space-2) 0;
  border-bottom: var(--space-2) solid var(--ink);
}
.day.today b {
  color: var(--accent);
  text-decoration: underline;
  text-decoration-thickness: var(--stroke-strong);
  text-underline-offset: 3px;
}
.day.taken,
.day.taken b,
.day.taken i {
  background: var(--wash);
}
.day.taken {
  outline: var(--stroke-line) solid var(--accent);
  outline-offset: -1px;
  z-index: 1;
}
.day:focus-visible {
  outline: var(--stroke-bold) solid var(--accent);
  z-index: 2;
}
</style>
