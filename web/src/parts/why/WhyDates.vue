<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../ProblemNote.vue'
import DatePath from './DatePath.vue'

/** Why an item has these dates in a section: each of them, step by step. */
const props = defineProps<{ edition: number; item: number; section: number }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.datePath(props.edition, props.item, props.section, viewpoint.query.value))
const path = computed(() => answer.data.value ?? null)
</script>

<template>
  <section class="dates" aria-label="Why these dates">
    <ProblemNote v-if="answer.problem.value && !path" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!path" class="small" role="status">Finding out …</p>
    <template v-else>
      <p class="ruled-head small">Why these dates in {{ path.section }}</p>
      <DatePath v-for="date in path.dates" :key="date.what" :date="date" />
      <p v-if="path.dates.length === 0" class="second">No date is set for it.</p>
    </template>
  </section>
</template>

<style scoped>
.dates {
  display: grid;
  gap: var(--space-2);
  max-width: 76ch;
}
</style>
