<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { line as lineThrough } from 'd3-shape'
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useLevels } from '../../foundation/levels'
import { sectionLines } from '../../look/theme'
import type { Drag } from './paceDrag'
import { type Point, type Stretch, heightAt, lastOf, lineOf, planOf } from './paceLines'
import { type Emit, usePaceGrip } from './usePaceGrip'

/** Time across, the course's lessons up; each section is one climbing line. */
const props = defineProps<{
  pace: Schemas['PaceAnswer']
  ribbon: Schemas['RibbonAnswer']
  sections: Schemas['PaceSection'][]
  view: { from: number; to: number }
  at: { section: number; place: number } | null
  canChange: boolean
  dragged: Drag | null
  withLast: boolean
}>()
const levels = useLevels()
const emit = defineEmits<Emit>()

const GUTTER = 26
const FOOT = 20
const frame = useTemplateRef<HTMLElement>('frame')
const size = useElementSize(frame)
const [width, height] = [computed(() => Math.floor(size.width.value)), computed(() => Math.floor(size.height.value))]
const hovered = ref(false)

const plot = computed(() => ({ wide: Math.max(0, width.value - GUTTER), high: Math.max(0, height.value - FOOT) }))
const time = computed(() => scaleLinear([props.view.from, props.view.to], [0, plot.value.wide]))
const course = computed(() => scaleLinear([0, Math.max(1, props.pace.lessons.length)], [plot.value.high, 14]))
const x = (at: number) => time.value(at)
const y = (up: number) => course.value(up)
const climbing = lineThrough<Point>(
  (point) => x(point.at),
  (point) => y(point.up),
).digits(1)
const path = (stretch: Stretch) => climbing(stretch.points) ?? ''
const units = computed(() => {
  const found = new Map<number, { number: number; title: string; from: number; to: number }>()
  props.pace.lessons.forEach((lesson, place) => {
    const known = found.get(lesson.unitNumber)
    if (known) known.to = place + 1
    else
      found.set(lesson.unitNumber, { number: lesson.unitNumber, title: lesson.unitTitle, from: place, to: place + 1 })
  })
  // The name stands where no line is: at the left above, at the right below.
  const middle = props.pace.lessons.length / 2
  return [...found.values()].map((unit) => ({ ...unit, left: (unit.from + unit.to) / 2 > middle }))
})
const lines = computed(() =>
  props.sections.map((section) => ({
    id: section.id,
    letter: section.letter,
    ink: `var(--${sectionLines[section.letter]?.ink ?? 'section-e'})`,
    stretches: [
      ...(props.withLast ? lastOf(section.lessons) : []),
      ...planOf(section.lessons),
      ...lineOf(section.lessons),
    ],
    now: heightAt(section.lessons, props.ribbon.momentAt),
    end: lineOf(section.lessons).at(-1)?.points.at(-1) ?? null,
  })),
)
/** Letters at the right end, kept apart where lines end close to one another. */
const ends = computed(() => {
  const placed = lines.value
    .filter((line) => line.end && line.end.at <= props.view.to && line.end.at >= props.view.from)
    .map((line) => ({ letter: line.letter, ink: line.ink, x: x(line.end!.at) + 5, y: y(line.end!.up) + 4 }))
    .sort((one, other) => one.y - other.y)
  for (let n = 1; n < placed.length; n++)
    if (placed[n]!.y - placed[n - 1]!.y < 13 && Math.abs(placed[n]!.x - placed[n - 1]!.x) < 14)
      placed[n]!.y = placed[n - 1]!.y + 13
  return placed
})
const marked = computed(() => {
  const run =
    props.at &&
    props.sections.find((one) => one.id === props.at!.section)?.lessons.find((one) => one.place === props.at!.place)
  if (!run || run.from === null || run.to === null) return null
  return { x1: x(run.from), y1: y(run.place), x2: x(run.to), y2: y(run.place + 1) }
})
const weeks = computed(() => props.ribbon.weeks.filter((week) => week.at >= props.view.from && week.at < props.view.to))
const closures = computed(() =>
  props.ribbon.closures.filter((one) => one.to > props.view.from && one.from < props.view.to),
)

const { down, move, up, cancel, take } = usePaceGrip(props, emit, frame, hovered, { x, y, time })

/** What is dragged, drawn from its lesson's level to where it would be. */
const ghost = computed(() => {
  const drag = props.dragged
  const run =
    drag && props.sections.find((one) => one.id === drag.section)?.lessons.find((one) => one.place === drag.place)
  if (!drag || !run || run.from === null || run.to === null) return null
  return drag.shape.field === 'pin'
    ? { x1: x(drag.at), y1: y(run.place), x2: x(drag.at + run.to - run.from), y2: y(run.place + 1) }
    : { x1: x(run.from), y1: y(run.place), x2: x(drag.at), y2: y(run.place + 1) }
})

/** By keys: along a line, or to the next section's. */
function step(along: number, across: number): void {
  const here = props.at ?? { section: props.sections[0]?.id ?? 0, place: -1 }
  const row = Math.max(
    0,
    props.sections.findIndex((section) => section.id === here.section),
  )
  const section = props.sections[(row + across + props.sections.length) % props.sections.length]
  const placed = section?.lessons.filter((run) => run.from !== null) ?? []
  if (!section || placed.length === 0) return
  const known = placed.findIndex((run) => run.place === here.place)
  const to = placed[Math.min(placed.length - 1, Math.max(0, known < 0 ? 0 : known + along))]!
  emit('look', { section: section.id, place: to.place })
}
</script>

<template>
  <div
    ref="frame"
    class="frame"
    :class="{ hovered }"
    tabindex="0"
    role="application"
    :aria-label="`The sections’ lines. Left and right go along a line, up and down to another section, Enter takes the ${levels.lesson.one}.`"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="cancel"
    @keydown.esc="dragged && cancel()"
    @click="take"
    @keydown.left.prevent="step(-1, 0)"
    @keydown.right.prevent="step(1, 0)"
    @keydown.up.prevent="step(0, -1)"
    @keydown.down.prevent="step(0, 1)"
    @keydown.enter.prevent="at && emit('take', at)"
  >
    <svg v-if="plot.wide > 0" :width="width" :height="height" aria-hidden="true">
      <defs>
        <pattern id="pace-closed" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--hair)" stroke-width="1" />
        </pattern>
        <clipPath id="pace-plot"><rect x="0" y="0" :width="plot.wide" :height="plot.high" /></clipPath>
      </defs>
      <rect
        v-for="closure in closures"
        :key="closure.from"
        :x="x(Math.max(closure.from, view.from))"
        y="0"
        :width="x(Math.min(closure.to, view.to)) - x(Math.max(closure.from, view.from))"
        :height="plot.high"
        fill="url(#pace-closed)"
      />
      <g v-for="unit in units" :key="unit.number">
        <line class="level" x1="0" :x2="plot.wide" :y1="y(unit.from)" :y2="y(unit.from)" />
      </g>
      <g v-for="week in weeks" :key="week.at">
        <line class="week" :x1="x(week.at)" :x2="x(week.at)" :y1="plot.high" :y2="plot.high + 5" />
        <text class="date" :x="x(week.at) + 3" :y="plot.high + 16">{{ week.monday }} {{ week.letter ?? '' }}</text>
      </g>
      <line class="ground" x1="0" :x2="plot.wide" :y1="plot.high" :y2="plot.high" />
      <line class="level" x1="0" :x2="plot.wide" :y1="y(pace.lessons.length)" :y2="y(pace.lessons.length)" />
      <line v-if="marked && !ghost" class="marked" v-bind="marked" />
      <line v-if="ghost" class="ghost" v-bind="ghost" />
      <g clip-path="url(#pace-plot)">
        <g v-for="line in lines" :key="line.id" :style="{ color: line.ink }">
          <path v-for="(stretch, n) in line.stretches" :key="n" :class="stretch.kind" :d="path(stretch)" />
        </g>
      </g>
      <text
        v-for="unit in units"
        :key="unit.number"
        class="unit"
        :x="unit.left ? 4 : plot.wide - 6"
        :y="(y(unit.from) + y(unit.to)) / 2 + 5"
        :text-anchor="unit.left ? 'start' : 'end'"
      >
        {{ unit.number }} {{ unit.title }}
      </text>
      <line
        v-if="ribbon.momentAt >= view.from && ribbon.momentAt <= view.to"
        class="moment"
        :x1="x(ribbon.momentAt)"
        :x2="x(ribbon.momentAt)"
        y1="0"
        :y2="plot.high"
      />
      <template v-for="line in lines" :key="line.id">
        <circle
          v-if="line.now && line.now.at >= view.from && line.now.at <= view.to"
          class="now"
          :style="{ color: line.ink }"
          :cx="x(line.now.at)"
          :cy="y(line.now.up)"
          r="3.5"
        />
      </template>
      <text v-for="end in ends" :key="end.letter" class="letter" :x="end.x" :y="end.y" :style="{ fill: end.ink }">
        {{ end.letter }}
      </text>
    </svg>
  </div>
</template>

<style scoped src="./manners.css"></style>
<style scoped>
.ghost {
  stroke: var(--accent);
  stroke-width: var(--stroke-bold);
}
.frame {
  position: relative;
  min-height: 0;
  overflow: hidden;
}
svg {
  touch-action: none;
  user-select: none;
}
.frame.hovered {
  cursor: pointer;
}
svg {
  position: absolute;
  inset: 0;
}
.level {
  stroke: var(--hair);
  stroke-width: 1;
}
.week,
.ground {
  stroke: var(--ink);
  stroke-width: 1;
}
.unit {
  font: 580 var(--size-text) / 1 var(--face-display);
  fill: var(--ink-2);
  paint-order: stroke;
  stroke: var(--paper);
  stroke-width: 5;
}
.date {
  font: 400 var(--size-small) / 1 var(--face-text);
  fill: var(--ink-2);
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-linejoin: round;
}
.marked {
  stroke: var(--wash);
  stroke-width: 14;
  stroke-linecap: round;
}
.moment {
  stroke: var(--accent);
  stroke-width: 1.5;
}
.now {
  fill: var(--paper);
  stroke: currentcolor;
  stroke-width: 2;
}
.letter {
  font: 700 var(--size-small) / 1 var(--face-text);
}
</style>
