<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'
import RubricTable from '../../../parts/marks/RubricTable.vue'

/** What went back with a piece: the mark, what was said, and whether it still stands by the present rubric. */
defineProps<{
  back: Schemas['WorkBack']
  rubrics: Record<string, Schemas['RubricForm']>
  /** What the student said of it by its rubric; null: nothing. */
  judged: Schemas['OwnJudgementAnswer'] | null
  canCorrect: boolean
}>()
defineEmits<{ correct: [] }>()
</script>

<template>
  <blockquote>
    <p class="small">
      Given back {{ back.at.words }}: {{ back.again ? 'try again' : 'go on'
      }}<template v-if="back.mark">, {{ back.mark.words }}</template>
    </p>
    <p v-if="back.byPresent" class="small">
      The rubric has been changed since. By the present one it would be {{ back.byPresent }}.
    </p>
    <RubricTable
      v-if="back.mark?.rubric"
      :rubric="rubrics[back.mark.rubric.is]!"
      :given="back.mark.rubric.levels"
      :own="judged?.rubric === back.mark.rubric.is ? judged.levels : null"
      own-words="their own"
    />
    <p v-if="back.text" class="written">{{ back.text }}</p>
    <p v-if="canCorrect">
      <button type="button" class="word-button small" @click="$emit('correct')">put it right</button>
    </p>
  </blockquote>
</template>

<style scoped>
blockquote {
  margin: 0;
  padding: var(--space-2) 0 var(--space-2) var(--space-6);
  border-left: var(--stroke-strong) solid var(--accent);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font-size: var(--size-large);
}
</style>
