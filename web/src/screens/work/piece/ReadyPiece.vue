<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'
import RubricTable from '../../../parts/marks/RubricTable.vue'
import { goesBack } from '../workOrder'

/** What goes back with a piece that is ready, as it was left. */
defineProps<{
  ready: Schemas['WorkReady']
  /** The one it is marked by. */
  rubric: Schemas['RubricForm'] | null
  canChange: boolean
  /** Others left a mark too, and one of them is to count. */
  isOneOfSeveral: boolean
  isOwn: boolean
}>()
defineEmits<{ change: []; count: [] }>()
</script>

<template>
  <blockquote>
    <p class="small">
      Ready since {{ ready.at.words }} ({{ ready.by }}): {{ ready.words }}.
      {{ goesBack(ready) ? `It ${goesBack(ready)}.` : '' }} The student sees none of it yet.
    </p>
    <RubricTable v-if="rubric && ready.back.mark?.rubric" :rubric="rubric" :given="ready.back.mark.rubric" />
    <p v-if="ready.back.text" class="written">{{ ready.back.text }}</p>
    <p v-if="canChange" class="ways">
      <button v-if="isOwn" type="button" class="word-button small" @click="$emit('change')">
        {{ isOneOfSeveral ? 'change it' : 'change it, or give it back now' }}
      </button>
      <button v-if="!isOwn || isOneOfSeveral" type="button" class="word-button small" @click="$emit('count')">
        {{ isOneOfSeveral ? 'this mark counts: give it back' : 'give it back with this mark' }}
      </button>
    </p>
  </blockquote>
</template>

<style scoped>
blockquote {
  margin: 0;
  padding: var(--space-2) 0 var(--space-2) var(--space-6);
  border-left: var(--stroke-strong) solid var(--hair);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-5);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: var(--size-large);
}
</style>
