<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import { useStudentLinks } from './useStudentLinks'

/** Why something is not open to a student: in a sentence, and how they stand with what it waits for. */
const props = defineProps<{
  section: number
  item: number
  edition?: number
  /** What it waits for stands above already. */
  below?: boolean
}>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const answer = useAnswer(() => questions.ownWhy(props.section, props.item, viewpoint.query.value))
</script>

<template>
  <div class="why" role="region" aria-label="Why">
    <ProblemNote
      v-if="answer.problem.value && !answer.data.value"
      :problem="answer.problem.value"
      :again="answer.refetch"
    />
    <p v-else-if="!answer.data.value" class="small" role="status">Finding out why …</p>
    <template v-else>
      <template v-if="!below || answer.data.value.steps.length === 0">
        <p v-for="words in answer.data.value.words" :key="words">{{ words }}</p>
      </template>
      <ul v-if="answer.data.value.steps.length" class="small">
        <li v-for="step in answer.data.value.steps" :key="step.item">
          <router-link :to="links.item(step.item)">{{ step.title }}</router-link>: {{ step.words }}.
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.why {
  display: grid;
  gap: var(--space-2);
  padding-left: var(--space-4);
  border-left: var(--stroke-strong) solid var(--accent);
}
ul {
  display: grid;
  gap: var(--space-1);
  list-style: none;
  padding: 0;
}
</style>
