<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../foundation/api/client'

/** The term as a strip of weeks: closures hatched, class days ticked, a cursor at the moment. */
const props = defineProps<{ ribbon: Schemas['RibbonAnswer'] }>()

const percent = (at: number) => `${((100 * at) / props.ribbon.days).toFixed(3)}%`
const inTerm = computed(() => props.ribbon.momentAt >= 0 && props.ribbon.momentAt <= props.ribbon.days)
const nearEnd = computed(() => props.ribbon.momentAt > 0.86 * props.ribbon.days)
const sentence = computed(() => `${props.ribbon.moment.words}${props.ribbon.isNow ? ' · now' : ''}`)
const inWords = computed(
  () =>
    `${props.ribbon.term}: ${props.ribbon.weeks.length} weeks, closed ${props.ribbon.closures
      .map((closure) => `${closure.words} (${closure.name})`)
      .join(', ')}. The moment is ${sentence.value}.`,
)
</script>

<template>
  <section class="ribbon" aria-label="The term and the moment">
    <div class="strip" role="img" :aria-label="inWords">
      <svg width="100%" height="54" aria-hidden="true">
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
        <line class="ground" x1="0" x2="100%" y1="52" y2="52" />
      </svg>
      <span v-for="week in ribbon.weeks" :key="week.at" class="week-name" :style="{ left: percent(week.at) }">
        {{ week.monday }} <i>{{ week.letter }}</i>
      </span>
      <span v-if="inTerm" class="cursor" :style="{ left: percent(ribbon.momentAt) }" />
    </div>
    <p v-if="inTerm" class="moment" :class="{ before: nearEnd }" :style="{ left: percent(ribbon.momentAt) }">
      {{ sentence }}
    </p>
    <p v-else class="moment outside">{{ sentence }}, outside this term</p>
    <p class="lens"><span class="small">seen as</span><b>the team</b></p>
  </section>
</template>

<style scoped>
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
  border-left: var(--stroke-strong) solid var(--accent);
}
.moment {
  position: absolute;
  top: 55px;
  transform: translateX(-50%);
  font-size: var(--size-small);
  font-weight: 650;
  color: var(--accent);
  white-space: nowrap;
}
.moment.before {
  transform: translateX(-100%);
}
.moment.outside {
  left: 0;
  transform: none;
}
.lens {
  display: grid;
  align-content: center;
  padding: 0 0 0 var(--space-6);
  margin-left: var(--space-6);
  border-left: var(--stroke-hair) solid var(--hair);
  white-space: nowrap;
}
</style>
