<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'

/** What a total is made of: what counts, part by part, and what does not, by its reason. */
const props = defineProps<{ total: Schemas['TotalForm'] }>()

/** What counts, part by part; then levels without percentages, with the one in the middle. */
const groups = computed(() => [
  ...props.total.parts.map((part) => ({ ...part, name: part.name ?? 'What counts', sum: part.percent })),
  ...props.total.scales.map((scale) => ({
    ...scale,
    name: 'In words',
    points: null,
    weight: null,
    sum: scale.middle,
  })),
])
const left = computed(() =>
  [...new Set(props.total.left.map((line) => line.words))].map((why) => ({
    why,
    lines: props.total.left.filter((line) => line.words === why),
  })),
)
</script>

<template>
  <p class="second">{{ total.how }}</p>
  <section v-for="(group, n) in groups" :key="n">
    <h2 class="part">
      <span>{{ group.name }}</span>
      <span v-if="group.points">{{ group.points }}</span>
      <b>{{ group.sum }}</b>
    </h2>
    <p v-if="group.weight" class="small">weight {{ group.weight }}</p>
    <dl>
      <template v-for="line in group.lines" :key="line.item">
        <dt>
          <slot :line="line">{{ line.code }} {{ line.title }}</slot>
        </dt>
        <dd>{{ line.words }}</dd>
      </template>
    </dl>
  </section>
  <details v-for="{ why, lines } in left" :key="why">
    <summary>
      {{ why }} <span class="small">{{ lines.length }}</span>
    </summary>
    <ul>
      <li v-for="line in lines" :key="line.item">
        <span
          ><slot :line="line">{{ line.code }} {{ line.title }}</slot></span
        >
        <span>{{ line.score }}</span>
      </li>
    </ul>
  </details>
</template>

<style scoped>
.part {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-6) 0 var(--space-2);
  border-bottom: var(--stroke-hair) solid var(--ink);
  font: inherit;
}
.part span:first-child {
  flex: 1;
  font-weight: 600;
}
.part b {
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: var(--space-2) var(--space-5);
  padding: var(--space-3) 0;
}
dd {
  text-align: right;
}
details {
  padding: var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
summary {
  cursor: pointer;
}
ul {
  padding: var(--space-3) 0 0 var(--space-6);
  list-style: none;
}
li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-5);
}
</style>
