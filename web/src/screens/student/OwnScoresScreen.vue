<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import TotalLines from '../../parts/marks/TotalLines.vue'
import { useStudentLinks } from './useStudentLinks'

/** One’s own scores, and what they come to so far. */
const props = defineProps<{ section: number; edition?: number }>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const scores = useAnswer(() => questions.ownScores(props.section, viewpoint.query.value))
const answer = scores.data
</script>

<template>
  <main class="body">
    <ProblemNote v-if="scores.problem.value && !answer" :problem="scores.problem.value" :again="scores.refetch" />
    <p v-else-if="!answer" class="second" role="status">Adding up …</p>
    <div v-else class="sheet">
      <p class="small way">
        <router-link :to="links.now()">Now and next</router-link> · {{ answer.course }} · {{ answer.section }}
      </p>
      <header>
        <component :is="edition === undefined ? 'h1' : 'h2'">Your scores</component>
        <b class="sum">{{ answer.total.soFar ?? 'nothing counts yet' }}</b>
        <span v-if="answer.total.soFar" class="second">so far</span>
      </header>
      <TotalLines v-slot="{ line }" :total="answer.total">
        <router-link :to="links.item(line.item)">{{ line.code }} {{ line.title }}</router-link>
      </TotalLines>
    </div>
  </main>
</template>

<style scoped>
.body {
  position: relative;
  min-height: 0;
  overflow: auto;
  border-top: var(--stroke-hair) solid var(--ink);
}
.sheet {
  max-width: 720px;
  padding-bottom: var(--space-9);
}
.way {
  padding: var(--space-5) 0 var(--space-3);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-6);
  padding-bottom: var(--space-4);
}
h1,
h2 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.sum {
  font-size: var(--size-unit);
  font-weight: 650;
}
</style>
