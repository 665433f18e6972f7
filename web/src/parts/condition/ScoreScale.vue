<script setup lang="ts">
import { computed } from 'vue'
import { joined } from '../../foundation/words'
import { changesSide } from './thresholds'

/** A threshold on the scale of the scores that were reached: moved along it, with who changes side. */
const props = defineProps<{
  scored: readonly { student: number; name: string; score: number }[]
  end: 'min' | 'below'
  /** As it is, in per cent. */
  from: number
  /** What is said of it where it is not seen. */
  label: string
}>()
const to = defineModel<number>({ required: true })

/** As many as stand at one score stand above one another, up to a height. */
const TALLEST = 8
const marks = computed(() => {
  const at = new Map<number, string[]>()
  for (const { name, score } of props.scored) {
    const place = Math.round(Math.min(100, Math.max(0, score)))
    at.set(place, [...(at.get(place) ?? []), name])
  }
  return [...at].map(([place, names]) => ({ place, names, height: Math.min(TALLEST, names.length) }))
})
const passes = (threshold: number) =>
  props.scored.filter(({ score }) => (props.end === 'min' ? score >= threshold : score < threshold)).length
const side = computed(() => changesSide(props.scored, props.end, props.from, to.value))
const names = (some: readonly { name: string }[]) => joined(some.map((one) => one.name))
const ends = computed(() => (props.end === 'min' ? 'at least' : 'below'))
</script>

<template>
  <div class="scale">
    <p class="small">
      {{ ends }} <b>{{ to }} %</b><template v-if="to !== from"> instead of {{ from }} %</template>: {{ passes(to) }} of
      the {{ scored.length }} with a score get in
    </p>
    <div class="line">
      <span class="marks" aria-hidden="true">
        <span
          v-for="{ place, names: who, height } in marks"
          :key="place"
          class="mark"
          :class="{ in: end === 'min' ? place >= to : place < to }"
          :style="{ left: `${place}%`, height: `${height * 4}px` }"
          :title="`${place} %: ${who.join(', ')}`"
        />
        <span class="from" :style="{ left: `${from}%` }" />
      </span>
      <input
        v-model.number="to"
        type="range"
        min="0"
        max="100"
        step="1"
        :aria-label="label"
        :aria-valuetext="`${ends} ${to} per cent`"
      />
    </div>
    <p class="small" role="status">
      <template v-if="side.lets.length">{{ side.lets.length }} more get in: {{ names(side.lets) }}.</template>
      <template v-else-if="side.shuts.length">{{ side.shuts.length }} fewer get in: {{ names(side.shuts) }}.</template>
      <template v-else-if="to !== from">Nobody changes side.</template>
      <template v-else>Move it to see who changes side.</template>
    </p>
  </div>
</template>

<style scoped>
.scale {
  display: grid;
  gap: var(--space-1);
}
.line {
  position: relative;
  padding-top: 36px;
}
/* The handle's middle lies above the mark of its score. */
.marks {
  position: absolute;
  inset: 0 8px auto;
  height: 34px;
}
.mark {
  position: absolute;
  bottom: 0;
  width: 3px;
  margin-left: -1px;
  background: var(--hair);
}
.mark.in {
  background: var(--ink);
}
.from {
  position: absolute;
  top: 0;
  bottom: -12px;
  border-left: 1px dashed var(--accent);
}
input {
  display: block;
  width: 100%;
  height: 24px;
  margin: 0;
  appearance: none;
  background: none;
}
input::-webkit-slider-runnable-track {
  height: 1px;
  background: var(--ink);
}
input::-moz-range-track {
  height: 1px;
  background: var(--ink);
}
input::-webkit-slider-thumb {
  width: 16px;
  height: 16px;
  margin-top: -8px;
  appearance: none;
  background: var(--ink);
}
input::-moz-range-thumb {
  width: 16px;
  height: 16px;
  border: 0;
  border-radius: 0;
  background: var(--ink);
}
</style>
