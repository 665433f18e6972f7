<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import RubricLevels from '../../../parts/marks/RubricLevels.vue'
import { sumOf } from '../../../parts/marks/rubric'

/** What a student says of their own piece by its rubric, before they hand it in. */
const props = defineProps<{ rubric: Schemas['RubricForm']; judged: Schemas['LevelGiven'][] }>()
const emit = defineEmits<{ judge: [levels: Schemas['LevelGiven'][]] }>()
const sum = computed(() => sumOf(props.rubric, props.judged))
</script>

<template>
  <section class="judging" aria-labelledby="judging">
    <h3 id="judging">Your own judgement</h3>
    <p class="second">
      Before you hand it in, say how far you think you got. Your teacher sees it beside the piece; it counts for
      nothing.
    </p>
    <RubricLevels :model-value="judged" :rubric="rubric" @update:model-value="emit('judge', $event)" />
    <p class="small" role="status">
      {{ sum.left === 0 ? `${sum.reached} of ${sum.outOf}` : sum.left === 1 ? 'one to go' : `${sum.left} to go` }}
    </p>
  </section>
</template>

<style scoped>
.judging {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-6) 0 var(--space-2);
}
h3 {
  font: 580 var(--size-text) / 1.3 var(--face-display);
}
</style>
