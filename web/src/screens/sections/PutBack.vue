<script setup lang="ts">
import { toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import ProblemNote from '../../parts/ProblemNote.vue'

/** One thing a section changes in its classes, and the click that puts it back. */
const props = defineProps<{ edition: number; section: number; change: Schemas['PaceChange']; canChange: boolean }>()

const back = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-classes')

const putBack = () =>
  back
    .run({ section: props.section, change: null, putBack: props.change.seq, version: props.change.version })
    .catch(() => undefined)
</script>

<template>
  <p class="line">
    <span
      >A class was {{ change.words }}<span v-if="change.sleeps" class="small">; it is not there any more</span></span
    >
    <button v-if="canChange" type="button" class="word-button" :disabled="back.busy.value" @click="putBack">
      put back
    </button>
  </p>
  <ProblemNote v-if="back.problem.value" :problem="back.problem.value" />
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: var(--space-5);
}
.word-button {
  flex: none;
}
</style>
