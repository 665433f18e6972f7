<script setup lang="ts">
import { computed, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useScreenKeys } from '../../../foundation/useKeys'
import RubricLevels from '../../../parts/marks/RubricLevels.vue'
import { keyOf, sumOf } from '../../../parts/marks/rubric'

/** Marking by a rubric: a level of each criterion, chosen by its key; the next criterion is taken up by itself. */
const props = defineProps<{
  rubric: Schemas['RubricForm']
  marked: Schemas['MarkedForm']
  /** What the student said of it by this rubric; null: nothing. */
  own?: readonly Schemas['LevelGiven'][] | null
}>()
const mark = defineModel<Schemas['MarkGiven'] | null>({ required: true })
const emit = defineEmits<{ plain: [] }>()

// What was left for a rubric that was changed since is to be marked again.
const given = ref<Schemas['LevelGiven'][]>(
  (mark.value?.rubric ?? []).filter((one) =>
    props.rubric.criteria.some(
      ({ id, levels }) => id === one.criterion && levels.some((level) => level.id === one.level),
    ),
  ),
)
const at = ref(0)
const levels = useTemplateRef('levels')
const sum = computed(() => sumOf(props.rubric, given.value))

function tell(): void {
  const whole = given.value.filter((one) => {
    const criterion = props.rubric.criteria.find((known) => known.id === one.criterion)!
    return !criterion.levels.find((level) => level.id === one.level)?.isRange || one.points != null
  })
  mark.value = whole.length ? { value: null, level: null, rubric: whole } : null
}
// At once: the key after it may give the piece back.
watch(given, tell, { flush: 'sync' })
if (given.value.length !== (mark.value?.rubric ?? []).length) tell()

function press(key: string): void {
  const criterion = props.rubric.criteria[at.value]
  const level = criterion?.levels.find((one) => keyOf(criterion, one) === key)
  if (criterion && level) levels.value?.choose(criterion, level)
}
function step(by: number): void {
  at.value = Math.max(0, Math.min(at.value + by, props.rubric.criteria.length - 1))
}
useScreenKeys([
  ...Array.from({ length: 10 }, (_, digit) => ({
    key: `${digit}`,
    words: digit === 1 ? 'and other digits: that level of the rubric; the next criterion comes up by itself' : '',
    run: () => press(`${digit}`),
  })),
  { key: 'ArrowRight', words: 'the next criterion', run: () => step(1) },
  { key: 'ArrowLeft', words: 'the criterion before', run: () => step(-1) },
])
</script>

<template>
  <section class="rubric" :aria-label="`Rubric: ${rubric.name}`">
    <RubricLevels
      ref="levels"
      v-model="given"
      v-model:at="at"
      :rubric="rubric"
      :other="own"
      other-words="their own"
      has-keys
    />
    <p class="foot">
      <span class="sum" role="status"
        ><strong>{{ sum.reached }}</strong> of {{ sum.outOf }}</span
      >
      <span v-if="sum.left" class="small">{{ sum.left === 1 ? 'one to go' : `${sum.left} to go` }}</span>
      <button v-if="given.length" type="button" class="word-button small" @click="((given = []), (at = 0))">
        clear
      </button>
      <button type="button" class="word-button small" @click="((mark = null), emit('plain'))">
        mark without the rubric
      </button>
    </p>
  </section>
</template>

<style scoped>
.rubric {
  display: grid;
  gap: var(--space-2);
}
.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.sum strong {
  font-size: var(--size-unit);
}
</style>
