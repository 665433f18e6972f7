<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import StudentRow from './StudentRow.vue'
import { useStudentLinks } from './useStudentLinks'

/** What is this unit about? What there is to do in it, and what one should be able to do at its end. */
const props = defineProps<{ section: number; unit: number; edition?: number }>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const unit = useAnswer(() => questions.studentUnit(props.section, props.unit, viewpoint.query.value))
const answer = computed(() => unit.data.value)
const doneOf = (all: number, done: number) =>
  done === 0 ? '' : done === all ? 'all of it done' : `${done} of ${all} done`
</script>

<template>
  <main class="body">
    <ProblemNote v-if="unit.problem.value && !answer" :problem="unit.problem.value" :again="unit.refetch" />
    <p v-else-if="!answer" class="second" role="status">Reading …</p>
    <article v-else>
      <p class="small"><router-link :to="links.now()">Now and next</router-link> · {{ answer.course }}</p>
      <component :is="edition === undefined ? 'h1' : 'h2'" class="head">{{ answer.title }}</component>
      <p class="second">{{ answer.contents }}</p>
      <section v-if="answer.outcomes.length" aria-label="What you should be able to do">
        <h2 class="list-head">At the end you should be able to</h2>
        <ul class="ruled">
          <li v-for="one in answer.outcomes" :key="one.code" class="outcome">
            <span class="code">{{ one.code }}</span>
            <span>{{ one.words }}</span>
            <span class="small"
              >{{ one.items.join(', ')
              }}<template v-if="one.done">{{ ` · ${doneOf(one.items.length, one.done)}` }}</template></span
            >
          </li>
        </ul>
      </section>
      <section v-for="(part, n) in answer.parts" :key="n" :aria-label="part.lesson ?? answer.title">
        <h2 class="list-head">{{ part.lesson ?? `In the ${answer.levels.unit.one}` }}</h2>
        <ul class="ruled">
          <StudentRow
            v-for="row in part.items"
            :key="row.item"
            :row="row"
            :section="section"
            :edition="edition"
            :when="row.state === 'upcoming' ? 'opens' : 'due'"
          />
        </ul>
      </section>
    </article>
  </main>
</template>

<style scoped>
.body {
  position: relative;
  min-height: 0;
  overflow: auto;
  border-top: var(--stroke-hair) solid var(--ink);
}
article {
  max-width: 860px;
  padding: var(--space-5) 0 var(--space-8);
}
.head {
  font: 600 var(--size-title) / 1.2 var(--face-display);
  padding: var(--space-2) 0;
}
.list-head {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
}
.outcome {
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr) auto;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding: var(--space-2) 0;
}
.code {
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
@media (max-width: 600px) {
  .outcome {
    grid-template-columns: 64px minmax(0, 1fr);
  }
  .outcome > :last-child {
    grid-column: 2;
  }
}
</style>
