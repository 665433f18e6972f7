<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import { useSection } from '../../foundation/useSection'
import SectionKey from '../../look/marks/SectionKey.vue'
import DateField from '../fields/DateField.vue'
import TimeField from '../fields/TimeField.vue'
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

/** The section in view; null: the course's plan. */
const { section, choose } = useSection()
const line = computed(
  () =>
    props.ribbon.lines.find((one) => one.section === section.value) ??
    (props.ribbon.lines.length === 1 ? props.ribbon.lines[0] : undefined),
)
/** The units by name, each as far as the next one begins. */
const units = computed(() => {
  const all = line.value?.units ?? props.ribbon.units
  return all.map((unit, n) => ({ ...unit, room: (all[n + 1]?.from ?? props.ribbon.days) - unit.from }))
})
const ticks = computed(() => line.value?.classes ?? props.ribbon.classDays.map((day) => day.at + 0.5))
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

async function go(moment: string | null, how: 'push' | 'replace' = 'push'): Promise<void> {
  const query = { ...route.query }
  delete query.at
  await router[how]({ query: moment ? { ...query, at: moment } : query })
}

/** By keys: going on from another moment leaves one entry in the history, however often a key is pressed. */
const step = (days: number) => go(momentPlusDays(local.value, days), props.ribbon.isNow ? 'push' : 'replace')
const stepTo = (place: number) => step(place - Math.floor(props.ribbon.momentAt))

const asked = ref({ date: '', time: '' })
function set(): void {
  asked.value = { date: local.value.slice(0, 10), time: local.value.slice(11, 16) }
  setting.value = true
}
watch(
  asked,
  ({ date, time }) => {
    if (setting.value && date && time && `${date}T${time}` !== local.value)
      void go(`${date}T${time}`, props.ribbon.isNow ? 'push' : 'replace')
  },
  { deep: true },
)

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
        <line v-for="tick in ticks" :key="tick" class="day" :x1="percent(tick)" :x2="percent(tick)" y1="47" y2="52" />
        <template v-for="unit in units" :key="unit.unit">
          <line class="unit" :x1="percent(unit.from)" :x2="percent(unit.to)" y1="24" y2="24" />
          <line class="unit" :x1="percent(unit.from)" :x2="percent(unit.from)" y1="20" y2="28" />
        </template>
        <line class="ground" x1="0" x2="100%" y1="52" y2="52" />
      </svg>
      <span
        v-for="(week, n) in ribbon.weeks"
        :key="week.at"
        class="week-name"
        :class="{ even: n % 2 === 1, most: n % 4 > 0 }"
        :style="{ left: percent(week.at) }"
      >
        {{ week.monday }} <i>{{ week.letter }}</i>
      </span>
      <router-link
        v-for="unit in units"
        :key="unit.unit"
        class="unit-name"
        :to="{
          name: 'outline',
          params: { edition },
          query: { ...$route.query, as: undefined, row: `unit-${unit.unit}` },
        }"
        :title="unit.title"
        :style="{ left: percent(unit.from), width: percent(unit.room) }"
        >{{ unit.title }}</router-link
      >
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
        @keydown.left.prevent="step(-1)"
        @keydown.down.prevent="step(-1)"
        @keydown.right.prevent="step(1)"
        @keydown.up.prevent="step(1)"
        @keydown.page-down.prevent="step(-7)"
        @keydown.page-up.prevent="step(7)"
        @keydown.home.prevent="stepTo(ribbon.from)"
        @keydown.end.prevent="stepTo(ribbon.to - 1)"
        @keydown.esc.prevent="go(null)"
      />
      <div class="moment" :class="inTerm ? place : 'outside'" :style="inTerm ? { left: percent(at) } : {}">
        <form v-if="setting" class="set" @submit.prevent @keydown.esc.stop="setting = false">
          <DateField v-model="asked.date" label="Date to look at" />
          <TimeField v-model="asked.time" label="Time to look at" />
          <button type="button" class="word-button" @click="setting = false">done</button>
        </form>
        <template v-else>
          <button type="button" class="word-button" title="Look at another moment" @click="set">
            {{ sentence }}{{ inTerm ? '' : ', outside this term' }}
          </button>
          <template v-if="!ribbon.isNow">
            · <button type="button" class="word-button" @click="go(null)">back to now</button>
          </template>
        </template>
      </div>
    </div>
    <div class="ends">
      <LensControl :edition="edition" :eyes="ribbon.eyes" />
      <v-menu v-if="ribbon.lines.length > 1">
        <template #activator="{ props: opener }">
          <button v-bind="opener" type="button" class="word-button small of" title="Whose units the ribbon shows">
            <SectionKey v-if="line" :letter="line.letter" :name="line.name" />
            <template v-else>all sections</template>
          </button>
        </template>
        <v-list aria-label="Whose units the ribbon shows">
          <v-list-item :active="!line" @click="choose(null)">all sections: the middle one</v-list-item>
          <v-list-item
            v-for="one in ribbon.lines"
            :key="one.section"
            :active="one.section === line?.section"
            @click="choose(one.section)"
            ><SectionKey :letter="one.letter" :name="one.name"
          /></v-list-item>
        </v-list>
      </v-menu>
    </div>
  </section>
</template>

<style scoped>
.unit {
  stroke: var(--line);
}
.unit-name {
  position: absolute;
  top: 22px;
  line-height: 26px;
  padding: 0 var(--space-3) 0 var(--space-2);
  font-size: var(--size-small);
  color: var(--ink);
  text-decoration: none;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.unit-name:hover {
  text-decoration: underline;
}
.set {
  display: flex;
  gap: var(--space-4);
  align-items: baseline;
  font-weight: 450;
  background: var(--paper);
}
.ends .of {
  min-height: 24px;
}
.ends {
  display: grid;
  align-content: start;
  justify-items: start;
  gap: var(--space-2);
  padding-left: var(--space-6);
  margin-left: var(--space-6);
  border-left: var(--stroke-hair) solid var(--hair);
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
  align-self: start;
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
/* Where there is little room, or the text is large, every second week is named, or every fourth. */
@media (max-width: 1100px) {
  .week-name.even {
    display: none;
  }
}
@media (max-width: 760px) {
  .week-name.most {
    display: none;
  }
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
</style>
