<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { type Outcome, outcomes } from './roster'

/** What becomes of each row, one kind of outcome at a time: what needs a look comes first. */
const props = defineProps<{ answer: Schemas['ImportRosterAnswer'] }>()

const countOf = (outcome: Outcome) => props.answer.counts.find((one) => one.outcome === outcome)?.lines ?? 0
const there = computed(() =>
  outcomes
    .map((one) => ({ outcome: one.outcome, n: countOf(one.outcome), words: one.words }))
    .filter((one) => one.n > 0),
)
const only = ref<Outcome | null>(null)
watch(there, (now) => (only.value = now[0]?.outcome ?? null), { immediate: true })
const lines = computed(() => props.answer.lines.filter((line) => line.outcome === only.value))
const more = computed(() => (only.value ? countOf(only.value) - lines.value.length : 0))
</script>

<template>
  <div class="lines">
    <p v-if="there.length" class="kinds" role="group" aria-label="Which rows are shown">
      <button
        v-for="one in there"
        :key="one.outcome"
        type="button"
        class="word-button"
        :class="{ chosen: only === one.outcome }"
        :aria-pressed="only === one.outcome"
        @click="only = one.outcome"
      >
        {{ one.words(one.n) }}
      </button>
    </p>
    <p v-else class="second">Everything in this file is here already.</p>
    <ul v-if="lines.length" class="ruled" tabindex="0" aria-label="What happens to each row">
      <li v-for="(line, n) in lines" :key="n">
        <span class="small">{{ line.row ? `${line.file}, row ${line.row}` : '' }}</span>
        <span>{{ line.words }}</span>
        <span class="second">{{ line.reason }}</span>
      </li>
    </ul>
    <p v-if="more > 0" class="small">and {{ more }} more</p>
    <p v-if="answer.leftOut.length" class="small">Left out: {{ answer.leftOut.join('; ') }}</p>
  </div>
</template>

<style scoped>
.lines {
  display: grid;
  gap: var(--space-4);
}
.kinds {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
}
.chosen {
  font-weight: 650;
}
ul {
  max-height: 45vh;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 170px 1fr 1fr;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
</style>
