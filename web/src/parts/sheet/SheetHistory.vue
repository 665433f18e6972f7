<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../ProblemNote.vue'
import WordChanges from '../text/WordChanges.vue'

/** What a paragraph said before: who changed what, and when. */
const props = defineProps<{ section: number; item: number; block: number }>()

const viewpoint = useViewpoint()
const versions = useAnswer(() => questions.sheetBlock(props.section, props.item, props.block, viewpoint.query.value))
const rows = computed(() =>
  (versions.data.value ?? []).map((version, at, all) => ({ version, before: all[at + 1]?.text ?? version.text })),
)
</script>

<template>
  <ol class="history" aria-label="What it said before">
    <li v-if="versions.problem.value"><ProblemNote :problem="versions.problem.value" :again="versions.refetch" /></li>
    <li v-for="{ version, before } in rows" :key="version.n">
      <p class="small second">{{ version.by ?? 'from the file' }}, {{ version.at.words }}</p>
      <WordChanges :before="before" :now="version.text" />
    </li>
  </ol>
</template>

<style scoped>
.history {
  list-style: none;
  display: grid;
  gap: var(--space-4);
  margin-top: var(--space-3);
  padding-left: var(--space-6);
  border-left: var(--stroke-hair) solid var(--hair);
}
</style>
