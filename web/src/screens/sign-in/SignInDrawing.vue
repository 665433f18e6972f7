<script setup lang="ts">
import { sectionLines } from '../../look/theme'

// What the product is about in one drawing: one plan, climbed by several sections, each in its own time.
const GROUND = 220
const weeks = Array.from({ length: 17 }, (_, week) => week)
const climbs = [
  { letter: 'A', points: [0, 8, 17, 25, 34, 42, 51, 59, 59, 68, 76, 85, 92, 97, 102, 107] },
  { letter: 'B', points: [0, 7, 15, 22, 29, 33, 40, 47, 47, 54, 61, 68, 76, 83, 90, 97] },
  { letter: 'C', points: [0, 10, 17, 28, 34, 45, 51, 62, 62, 72, 78, 90, 98, 106, 112, 117] },
  { letter: 'D', points: [0, 6, 12, 18, 24, 31, 37, 43, 43, 49, 55, 61, 67, 73, 79, 85] },
]
const path = (points: number[]) =>
  points.map((up, week) => `${week ? 'L' : 'M'}${week * 72} ${GROUND - 1.8 * up}`).join('')
</script>

<template>
  <svg viewBox="0 0 1224 224" aria-hidden="true">
    <defs>
      <pattern id="shut" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" y1="0" x2="0" y2="7" stroke="var(--hair)" />
      </pattern>
    </defs>
    <line v-for="week in weeks" :key="week" class="week" :x1="week * 72" :x2="week * 72" y1="12" y2="220" />
    <rect x="504" y="12" width="72" height="208" fill="url(#shut)" />
    <path
      v-for="climb in climbs"
      :key="climb.letter"
      :d="path(climb.points)"
      fill="none"
      :stroke="`var(--${sectionLines[climb.letter]?.ink})`"
      stroke-width="2"
      :stroke-dasharray="sectionLines[climb.letter]?.dashes"
    />
    <text
      v-for="climb in climbs"
      :key="climb.letter"
      x="1092"
      :y="GROUND - 1.8 * (climb.points.at(-1) ?? 0) + 4"
      :fill="`var(--${sectionLines[climb.letter]?.ink})`"
    >
      {{ climb.letter }}
    </text>
    <line class="ground" x1="0" x2="1224" y1="220" y2="220" />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
}
.week {
  stroke: var(--faint-hair);
}
text {
  font: 700 var(--size-small) / 1 var(--face-text);
}
.ground {
  stroke: var(--ink);
}
</style>
