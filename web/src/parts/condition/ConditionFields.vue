<script setup lang="ts">
import { computed } from 'vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import ProblemNote from '../ProblemNote.vue'
import ChoiceField from '../fields/ChoiceField.vue'
import SeveralLines from './SeveralLines.vue'
import { type Draft, usual } from './draft'

/** A condition as indented lines in words: what must be so, whether it then stays open, and what students see until then. */
const props = defineProps<{
  edition: number
  /** What cannot be named: what the condition stands on, and what is in it. */
  without?: readonly string[]
  /** The letter of the only section that it is of; null: of the course. */
  only?: string | null
  /** What it stands on, so that what comes shortly before is offered first. */
  before?: string
}>()
const draft = defineModel<Draft>({ required: true })

const NEAR = 5
const answer = useAnswer(() => questions.askable(props.edition))
const askable = computed(() => {
  const all = answer.data.value
  return all
    ? {
        ...all,
        items: all.items.filter(
          (one) => !props.without?.includes(one.lineage) && (one.only === null || one.only === props.only),
        ),
      }
    : null
})
const near = computed(() => {
  const all = answer.data.value?.items ?? []
  const own = all.findIndex((one) => one.lineage === props.before)
  return own < 0
    ? []
    : all
        .slice(Math.max(0, own - NEAR), own)
        .reverse()
        .map((one) => one.lineage)
})
const asUsual = computed(() => usual(draft.value))
</script>

<template>
  <ProblemNote v-if="answer.problem.value && !askable" :problem="answer.problem.value" :again="answer.refetch" />
  <p v-else-if="!askable" class="small" role="status">Reading …</p>
  <div v-else class="condition">
    <SeveralLines
      :model-value="draft.root"
      :askable="askable"
      :near="near"
      place=""
      @update:model-value="draft = { ...draft, root: $event }"
    />
    <p v-if="draft.root.parts.length" class="line small">
      <span>Once open it</span>
      <ChoiceField
        :model-value="draft.latch"
        label="Once open"
        :choices="[
          { value: null, title: asUsual.stays ? 'stays open, as usual' : 'is open as long as this holds, as usual' },
          { value: true, title: 'stays open' },
          { value: false, title: 'is open as long as this holds' },
        ]"
        @update:model-value="draft = { ...draft, latch: $event }"
      />
      <span>and until then students</span>
      <ChoiceField
        :model-value="draft.whenLocked"
        label="What students see until then"
        :choices="[
          { value: null, title: asUsual.isTold ? 'are told what is missing, as usual' : 'see nothing of it, as usual' },
          { value: 'show', title: 'are told what is missing' },
          { value: 'hide', title: 'see nothing of it' },
        ]"
        @update:model-value="draft = { ...draft, whenLocked: $event as Draft['whenLocked'] }"
      />
    </p>
  </div>
</template>

<style scoped>
.condition {
  display: grid;
  gap: var(--space-3);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
}
</style>
