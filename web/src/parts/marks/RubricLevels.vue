<script setup lang="ts">
import { nextTick, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import NumberField from '../fields/NumberField.vue'
import { besides, keyOf, shortName } from './rubric'

/** Choosing a level of each criterion of a rubric; of a range also how many points. */
const props = defineProps<{
  rubric: Schemas['RubricForm']
  /** What somebody else chose, which stands out beside. */
  other?: readonly Schemas['LevelGiven'][] | null
  /** Whose that is, such as `theirs`. */
  otherWords?: string
  /** Whether levels have keys: they stand at the criterion that is up. */
  hasKeys?: boolean
}>()
const given = defineModel<Schemas['LevelGiven'][]>({ required: true })
/** Which criterion is up. */
const at = defineModel<number>('at', { default: -1 })

const criteria = useTemplateRef<HTMLElement>('criteria')
const of = (criterion: string) => given.value.find((one) => one.criterion === criterion)
const chosenLevel = (criterion: Schemas['CriterionForm']) =>
  criterion.levels.find((one) => one.id === of(criterion.id)?.level)
const isOther = (criterion: string, level: string) =>
  props.other?.some((one) => one.criterion === criterion && one.level === level) === true

/** Chosen again, it is taken back. */
function choose(criterion: Schemas['CriterionForm'], level: Schemas['RubricLevelForm']): void {
  const place = props.rubric.criteria.indexOf(criterion)
  const before = of(criterion.id)
  const others = given.value.filter((one) => one !== before)
  at.value = place
  if (before?.level === level.id) {
    given.value = others
    return
  }
  given.value = [...others, { criterion: criterion.id, level: level.id, points: null }]
  // How many of a range is written; else the next one comes up.
  if (level.isRange)
    void nextTick(() =>
      criteria.value?.querySelectorAll(':scope > li')[place]?.querySelector<HTMLElement>('input[inputmode]')?.focus(),
    )
  else at.value = Math.min(place + 1, props.rubric.criteria.length - 1)
}
defineExpose({ choose })

const setPoints = (criterion: string, points: number | null) =>
  (given.value = given.value.map((one) => (one.criterion === criterion ? { ...one, points } : one)))

/** Enter in the points of a range leads on to the next criterion. */
function leave(event: KeyboardEvent): void {
  event.stopPropagation()
  event.preventDefault()
  ;(event.target as HTMLElement).blur()
  at.value = Math.min(at.value + 1, props.rubric.criteria.length - 1)
}
</script>

<template>
  <ol ref="criteria" class="criteria">
    <li v-for="(criterion, place) in rubric.criteria" :key="criterion.id" :class="{ current: hasKeys && place === at }">
      <p :id="`criterion-${criterion.id}`" class="title">
        {{ criterion.title }} <span v-if="besides(criterion)" class="small second">{{ besides(criterion) }}</span>
      </p>
      <p class="levels" role="group" :aria-labelledby="`criterion-${criterion.id}`">
        <button
          v-for="level in criterion.levels"
          :key="level.id"
          type="button"
          :title="level.words"
          :aria-pressed="of(criterion.id)?.level === level.id"
          @click="choose(criterion, level)"
        >
          <kbd v-if="hasKeys && place === at && keyOf(criterion, level) !== shortName(level)">{{
            keyOf(criterion, level)
          }}</kbd>
          {{ shortName(level) }}
          <span v-if="isOther(criterion.id, level.id)" class="small">{{ otherWords }}</span>
        </button>
        <NumberField
          v-if="chosenLevel(criterion)?.isRange"
          :key="of(criterion.id)!.level"
          :model-value="of(criterion.id)!.points ?? null"
          :label="`Points for ${criterion.title}`"
          :min="chosenLevel(criterion)!.from"
          :max="chosenLevel(criterion)!.to"
          :decimals="2"
          @update:model-value="setPoints(criterion.id, $event)"
          @keydown.enter="leave"
        />
      </p>
      <p v-if="chosenLevel(criterion)?.words" class="small">{{ chosenLevel(criterion)!.words }}</p>
    </li>
  </ol>
</template>

<style scoped>
.criteria,
.criteria > li {
  display: grid;
  gap: var(--space-2);
}
.criteria {
  list-style: none;
  grid-template-columns: repeat(auto-fill, minmax(260px, 1fr));
  gap: var(--space-4) var(--space-6);
}
.criteria > li {
  align-content: start;
  padding-left: var(--space-4);
  border-left: var(--stroke-strong) solid transparent;
}
.current {
  border-color: var(--accent) !important;
}
.title {
  font-weight: 600;
}
.title .small {
  font-weight: 400;
}
.levels {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.levels button {
  min-width: var(--space-7);
  text-align: left;
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-strong) solid transparent;
  color: var(--ink-2);
}
.levels [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--accent);
}
kbd {
  font: inherit;
  font-size: var(--size-small, 13px);
  color: var(--accent);
}
</style>
