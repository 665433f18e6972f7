<script setup lang="ts">
import { computed } from 'vue'
import { sectionLines } from '../../../look/theme'
import { type Life, bandOf } from './lives'

/** What becomes of a row in every section, as lines on the term's scale, or as dates. Many sections become one band. */
const props = defineProps<{ lives: Life[]; days: number; show: 'lines' | 'dates' }>()

const MOST = 6
const HIGH = 27
const many = computed(() => props.lives.length > MOST)
const x = (place: number) => `${((100 * place) / props.days).toFixed(2)}%`
const y = (n: number) => 4 + ((HIGH - 8) * n) / Math.max(1, props.lives.length - 1)
const inkOf = (letter: string) => `var(--${sectionLines[letter]?.ink ?? 'section-e'})`
const lines = computed(() =>
  many.value
    ? []
    : props.lives.flatMap((life, n) =>
        life.from === null ? [] : [{ ...life, from: life.from, at: y(n), ink: inkOf(life.letter) }],
      ),
)
const band = computed(() => (many.value ? bandOf(props.lives) : null))
const words = computed(() => props.lives.map((life) => life.words).join('; '))
</script>

<template>
  <span v-if="show === 'dates'" class="dates small">
    <span
      v-for="life in lives.slice(0, MOST)"
      :key="life.letter"
      :class="{ differs: life.differs }"
      :title="life.words"
      >{{ life.dates }}</span
    >
  </span>
  <svg v-else class="life" width="100%" :height="HIGH" role="img" :aria-label="words">
    <title>{{ words }}</title>
    <template v-for="life in lines" :key="life.letter">
      <line
        v-if="life.to !== null"
        :x1="x(life.from)"
        :x2="x(life.to)"
        :y1="life.at"
        :y2="life.at"
        :stroke="life.ink"
        :stroke-width="life.open ? 2.4 : 1.2"
        :stroke-dasharray="sectionLines[life.letter]?.dashes"
      />
      <line
        v-if="life.to !== null"
        :x1="x(life.to)"
        :x2="x(life.to)"
        :y1="life.at - 3"
        :y2="life.at + 3"
        :stroke="life.ink"
      />
      <circle
        :cx="x(life.from)"
        :cy="life.at"
        r="2.6"
        :fill="life.open ? life.ink : 'var(--paper)'"
        :stroke="life.ink"
      />
      <svg v-if="life.held" :x="x(life.from)" overflow="visible">
        <line class="held" x1="-6" x2="-6" :y1="life.at - 3" :y2="life.at + 3" />
      </svg>
    </template>
    <template v-if="band">
      <line class="band" :x1="x(band.from)" :x2="x(Math.max(band.to, band.from + 0.4))" y1="13" y2="13" />
      <line v-for="(place, n) in band.opens" :key="n" class="opens" :x1="x(place)" :x2="x(place)" y1="9" y2="17" />
      <circle
        v-for="life in band.differs"
        :key="life.letter"
        :cx="x(life.from!)"
        cy="22"
        r="2.4"
        :fill="inkOf(life.letter)"
      />
    </template>
  </svg>
</template>

<style scoped>
.life {
  display: block;
  overflow: visible;
}
.held {
  stroke: var(--accent);
  stroke-width: var(--stroke-strong);
}
.band {
  stroke: var(--hair);
  stroke-width: 8;
}
.opens {
  stroke: var(--ink-2);
}
.dates {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: var(--space-4);
  white-space: nowrap;
}
.dates span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.differs {
  color: var(--ink);
  text-decoration: underline;
  text-decoration-color: var(--accent);
  text-underline-offset: 3px;
}
</style>
