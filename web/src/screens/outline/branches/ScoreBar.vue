<script setup lang="ts">
import { computed } from 'vue'
import { type Branch, misfits, stretchesOf } from './branches'

/** All scores as one bar: where nothing opens it is empty, where more than one thing does it is dark. */
const props = defineProps<{ branches: Branch[] }>()
const stretches = computed(() => stretchesOf(props.branches))
const words = computed(() => misfits(stretches.value))
const cuts = computed(() => stretches.value.map((one) => one.from).filter((at) => at > 0 && at < 100))
</script>

<template>
  <div class="scores">
    <div class="bar" aria-hidden="true">
      <span
        v-for="one in stretches"
        :key="one.from"
        :class="one.opens === 0 ? 'gap' : one.opens > 1 ? 'overlap' : 'one'"
        :style="{ flexGrow: Math.max(one.to - one.from, 1) }"
      ></span>
    </div>
    <div class="ends small" aria-hidden="true">
      <span>0 %</span>
      <span v-for="at in cuts" :key="at" class="cut" :style="{ left: `${at}%` }">{{ at }}</span>
      <span>100 %</span>
    </div>
    <p v-for="one in words" :key="one" class="misfit">{{ one }}</p>
    <p v-if="words.length === 0" class="small">Every score opens exactly one of them.</p>
  </div>
</template>

<style scoped>
.scores {
  display: grid;
  gap: var(--space-2);
  max-width: 520px;
}
.bar {
  display: flex;
  gap: 2px;
  height: 12px;
}
.bar > span {
  flex-basis: 0;
}
.one {
  background: var(--ink-2);
}
.overlap {
  background: var(--accent);
}
.gap {
  border: var(--stroke-hair) dashed var(--accent);
}
.ends {
  position: relative;
  display: flex;
  justify-content: space-between;
}
.cut {
  position: absolute;
  transform: translateX(-50%);
}
.misfit {
  color: var(--accent);
}
</style>
