<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import { sectionLines } from '../../look/theme'
import LensControl from './LensControl.vue'
import { momentPlusDays, plusDays } from '../calendarDays'

/** The term as a strip of weeks: closures hatched, class days ticked, a cursor at the moment, which can be moved. */
const props = defineProps<{ ribbon: Schemas['RibbonAnswer']; edition: number }>()

const route = useRoute()
const router = useRouter()
const strip = useTemplateRef<HTMLElement>('strip')
/** Where the cursor is while it is dragged, in days; null: it is not. */
const dragged = ref<number | null>(null)
const setting = ref(false)

/** The lessons of the section in view, or of all where they are few. */
const lines = computed(() => {
  const one = props.ribbon.lines.filter((line) => `${line.section}` === `${route.query.section ?? ''}`)
  return one.length > 0 || props.ribbon.lines.length > 4 ? one : props.ribbon.lines
})
const percent = (at: number) => `${((100 * at) / props.ribbon.days).toFixed(3)}%`
const at = computed(() => dragged.value ?? props.ribbon.momentAt)
const inTerm = computed(() => props.ribbon.momentAt >= 0 && props.ribbon.momentAt <= props.ribbon.days)
const place = computed(() => (at.value > 0.8 * props.ribbon.days ? 'before' : at.value < 6 ? 'after' : 'around'))
const local = computed(() => props.ribbon.moment.local.slice(0, 16))
const sentence = computed(() => {
  if (dragged.value !== null) return spoken(dragged.value)
  const { moment, isNow, relative } = props.ribbon
  return isNow ? `${moment.words} · now` : `${moment.words} – ${relative}`
})
const inWords = computed(
  () =>
    `${props.ribbon.term}: ${props.ribbon.weeks.length} weeks, closed ${props.ribbon.closures
      .map((closure) => `${closure.words} (${closure.name})`)
      .join(', ')}. The moment is ${sentence.value}.`,
)

/** A place on the strip as a date, while the cursor is still on its way. */
function spoken(day: number): string {
  const date = plusDays(props.ribbon.origin, Math.floor(day))
  const known = props.ribbon.classDays.find((one) => one.at === Math.floor(day))
  return `${known ? known.date : date.slice(5)}, ${local.value.slice(11)}`
}

async function go(moment: string | null): Promise<void> {
  setting.value = false
  const query = { ...route.query }
  delete query.at
  await router.push({ query: moment ? { ...query, at: moment } : query })
}

function placeOf(event: PointerEvent): number {
  const box = strip.value!.getBoundingClientRect()
  return Math.min(props.ribbon.days - 0.01, Math.max(0, ((event.clientX - box.left) / box.width) * props.ribbon.days))
}

function grip(event: PointerEvent): void {
  const target = event.currentTarget as HTMLElement
  target.setPointerCapture(event.pointerId)
  dragged.value = placeOf(event)
}

function drag(event: PointerEvent): void {
  if (dragged.value !== null) dragged.value = placeOf(event)
}

async function drop(): Promise<void> {
  if (dragged.value === null) return
  const day = Math.floor(dragged.value)
  const moved = day !== Math.floor(props.ribbon.momentAt)
  if (moved) await go(`${plusDays(props.ribbon.origin, day)}T${local.value.slice(11)}`)
  dragged.value = null
}
</script>

<template>
  <section class="ribbon" aria-label="The term and the moment">
    <div ref="strip" class="strip">
      <svg width="100%" height="54" role="img" :aria-label="inWords">
        <defs>
          <pattern id="closed" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--line)" stroke-width="1" />
          </pattern>
        </defs>
        <rect
          v-for="closure in ribbon.closures"
          :key="closure.from"
          :x="percent(closure.from)"
          y="24"
          :width="percent(closure.to - closure.from)"
          height="28"
          fill="url(#closed)"
        >
          <title>{{ closure.name }}, {{ closure.words }}</title>
        </rect>
        <line
          v-for="week in ribbon.weeks"
          :key="week.at"
          class="week"
          :x1="percent(week.at)"
          :x2="percent(week.at)"
          y1="0"
          y2="52"
        />
        <line
          v-for="day in ribbon.classDays"
          :key="day.at"
          class="day"
          :x1="percent(day.at + 0.5)"
          :x2="percent(day.at + 0.5)"
          y1="47"
          y2="52"
        />
        <template v-for="(line, n) in lines" :key="line.section">
          <line
            v-for="lesson in line.lessons"
            :key="lesson.from"
            class="lesson"
            :x1="percent(lesson.from)"
            :x2="percent(Math.max(lesson.to, lesson.from + 0.3))"
            :y1="27 + 5 * n"
            :y2="27 + 5 * n"
            :stroke="`var(--${sectionLines[line.letter]?.ink ?? 'line'})`"
          >
            <title>{{ line.name }}: {{ lesson.title }}</title>
          </line>
        </template>
        <line class="ground" x1="0" x2="100%" y1="52" y2="52" />
      </svg>
      <span v-for="week in ribbon.weeks" :key="week.at" class="week-name" :style="{ left: percent(week.at) }">
        {{ week.monday }} <i>{{ week.letter }}</i>
      </span>
      <span
        v-if="inTerm"
        class="cursor"
        role="slider"
        tabindex="0"
        aria-label="The moment"
        :aria-valuemin="0"
        :aria-valuemax="ribbon.days"
        :aria-valuenow="Math.floor(at)"
        :aria-valuetext="sentence"
        :style="{ left: percent(at) }"
        @pointerdown="grip"
        @pointermove="drag"
        @pointerup="drop"
        @keydown.left.prevent="go(momentPlusDays(local, -1))"
        @keydown.right.prevent="go(momentPlusDays(local, 1))"
        @keydown.up.prevent="go(momentPlusDays(local, -7))"
        @keydown.down.prevent="go(momentPlusDays(local, 7))"
        @keydown.esc.prevent="go(null)"
      />
      <div class="moment" :class="inTerm ? place : 'outside'" :style="inTerm ? { left: percent(at) } : {}">
        <form v-if="setting" @submit.prevent>
          <label class="said-only" for="ribbon-moment">The moment, in the school’s time</label>
          <input
            id="ribbon-moment"
            type="datetime-local"
            :value="local"
            @change="go(($event.target as HTMLInputElement).value.slice(0, 16) || null)"
            @keydown.esc="setting = false"
          />
        </form>
        <template v-else>
          <button type="button" class="word-button" title="Look at another moment" @click="setting = true">
            {{ sentence }}{{ inTerm ? '' : ', outside this term' }}
          </button>
          <template v-if="!ribbon.isNow">
            · <button type="button" class="word-button" @click="go(null)">back to now</button>
          </template>
        </template>
      </div>
    </div>
    <LensControl :edition="edition" :eyes="ribbon.eyes" />
  </section>
</template>

<style scoped>
.lesson {
  stroke-width: var(--stroke-line);
  opacity: 0.45;
}
.ribbon {
  position: relative;
  display: grid;
  grid-template-columns: 1fr auto;
  border-top: var(--stroke-hair) solid var(--ink);
  padding-bottom: var(--space-8);
}
.strip {
  position: relative;
}
svg {
  display: block;
}
.week {
  stroke: var(--hair);
}
.day,
.ground {
  stroke: var(--ink);
}
.week-name {
  position: absolute;
  top: var(--space-2);
  padding-left: var(--space-2);
  font-size: var(--size-small);
  color: var(--ink-2);
  white-space: nowrap;
}
.week-name i {
  font-style: normal;
  font-weight: 700;
}
.cursor {
  position: absolute;
  top: var(--space-8);
  bottom: 0;
  width: var(--space-8);
  margin-left: calc(-0.5 * var(--space-8));
  cursor: ew-resize;
  touch-action: none;
}
.cursor::before {
  content: '';
  position: absolute;
  inset: 0 auto 0 calc(50% - 1px);
  border-left: var(--stroke-strong) solid var(--accent);
}
.moment {
  position: absolute;
  top: 52px;
  transform: translateX(-50%);
  font-size: var(--size-small);
  font-weight: 650;
  color: var(--accent);
  white-space: nowrap;
}
.moment.before {
  transform: translateX(-100%);
}
.moment.after {
  transform: none;
}
.moment.outside {
  left: 0;
  transform: none;
}
.moment .word-button {
  padding: var(--space-2) 0;
  text-decoration-color: transparent;
}
.moment .word-button:hover,
.moment .word-button:focus-visible {
  text-decoration-color: currentcolor;
}
.moment input {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--accent);
  border-radius: var(--radius-0);
  padding: var(--space-1) var(--space-3);
}
</style>
