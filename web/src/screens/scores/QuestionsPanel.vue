<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import SidePanel from './SidePanel.vue'

/** How the questions of a quiz went: how hard each is, whether it tells strong from weak, and what was answered instead. */
const props = defineProps<{
  edition: number
  quiz: number
  /** Null: every section. */
  section: number | null
}>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.questionsOf(props.edition, props.quiz, viewpoint.query.value))
const asked = computed(() =>
  (answer.data.value?.questions ?? []).map((question) => ({
    ...question,
    sections: question.sections.filter((one) => props.section === null || one.section === props.section),
  })),
)
</script>

<template>
  <SidePanel
    label="How the questions went"
    :title="answer.data.value?.title"
    waiting="Looking through the answers …"
    :problem="answer.problem.value"
    :again="answer.refetch"
    @close="emit('close')"
  >
    <p class="small">First attempts only, because anyone who tries again has seen the answers.</p>
    <ol>
      <li v-for="question in asked" :key="question.n">
        <p class="text">
          <span class="small">{{ question.n }}</span> {{ question.text }}
        </p>
        <p v-if="question.sections.length === 0" class="small">Nobody has answered it yet.</p>
        <div v-for="one in question.sections" :key="one.section" class="went">
          <p>
            <SectionKey v-if="section === null" :letter="one.letter" :name="one.name" short />
            <b>{{ one.right }} of {{ one.students }} right</b>
            <span v-if="one.mean" class="small">{{ one.mean }} on average</span>
          </p>
          <p v-if="one.tellsApart" class="small">
            Tells stronger students from weaker ones
            <b :class="{ accent: one.tellsApart === 'hardly' || one.tellsApart === 'the wrong way round' }">{{
              one.tellsApart
            }}</b>
          </p>
          <ul v-if="one.wrong.length" class="small" aria-label="Frequent wrong answers">
            <li v-for="wrong in one.wrong" :key="wrong.words">
              <span>{{ wrong.words }}</span> <span>{{ wrong.students }}</span>
            </li>
          </ul>
        </div>
      </li>
    </ol>
  </SidePanel>
</template>

<style scoped>
ol,
ul {
  list-style: none;
}
ol > li {
  padding: var(--space-5) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.text {
  padding-bottom: var(--space-3);
}
.went {
  padding-bottom: var(--space-3);
}
.went > p {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
.went ul {
  padding: var(--space-2) 0 0 var(--space-5);
}
.went li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-5);
}
</style>
