<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useScreenKeys } from '../../../foundation/useKeys'
import NumberField from '../../../parts/fields/NumberField.vue'
import { besides, keyOf, shortName, sumOf } from '../../../parts/marks/rubric'

/** Marking by a rubric: a level of each criterion, chosen by its key; the next criterion is taken up by itself. */
const props = defineProps<{ rubric: Schemas['RubricForm']; marked: Schemas['MarkedForm'] }>()
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
const criteria = useTemplateRef<HTMLElement>('criteria')
const of = (criterion: string) => given.value.find((one) => one.criterion === criterion)
const sum = computed(() => sumOf(props.rubric, given.value))
const chosenLevel = (criterion: Schemas['CriterionForm']) =>
  criterion.levels.find((one) => one.id === of(criterion.id)?.level)

function tell(): void {
  const whole = given.value.filter((one) => {
    const criterion = props.rubric.criteria.find((known) => known.id === one.criterion)!
    return !chosenLevel(criterion)?.isRange || one.points != null
  })
  mark.value = whole.length ? { value: null, level: null, rubric: whole } : null
}
if (given.value.length !== (mark.value?.rubric ?? []).length) tell()

/** Chosen again, it is taken back. */
function choose(criterion: Schemas['CriterionForm'], level: Schemas['RubricLevelForm']): void {
  const place = props.rubric.criteria.indexOf(criterion)
  const before = of(criterion.id)
  given.value = given.value.filter((one) => one !== before)
  at.value = place
  if (before?.level !== level.id) {
    given.value.push({ criterion: criterion.id, level: level.id, points: null })
    // How many of a range is written; else the next one comes up.
    if (level.isRange)
      void nextTick(() =>
        criteria.value?.querySelectorAll(':scope > li')[place]?.querySelector<HTMLElement>('input[inputmode]')?.focus(),
      )
    else at.value = Math.min(place + 1, props.rubric.criteria.length - 1)
  }
  tell()
}

function setPoints(criterion: string, points: number | null): void {
  given.value = given.value.map((one) => (one.criterion === criterion ? { ...one, points } : one))
  tell()
}

/** Enter in the points of a range leads on to the next criterion. */
function leave(event: KeyboardEvent): void {
  event.stopPropagation()
  event.preventDefault()
  ;(event.target as HTMLElement).blur()
  at.value = Math.min(at.value + 1, props.rubric.criteria.length - 1)
}

function press(key: string): void {
  const criterion = props.rubric.criteria[at.value]
  const level = criterion?.levels.find((one) => keyOf(criterion, one) === key)
  if (criterion && level) choose(criterion, level)
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
    <ol ref="criteria" class="criteria">
      <li v-for="(criterion, place) in rubric.criteria" :key="criterion.id" :class="{ current: place === at }">
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
            <kbd v-if="place === at && keyOf(criterion, level) !== shortName(level)">{{ keyOf(criterion, level) }}</kbd>
            {{ shortName(level) }}
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
    <p class="foot">
      <span class="sum" role="status"
        ><strong>{{ sum.reached }}</strong> of {{ sum.outOf }}</span
      >
      <span v-if="sum.left" class="small">{{ sum.left === 1 ? 'one to go' : `${sum.left} to go` }}</span>
      <button v-if="given.length" type="button" class="word-button small" @click="((given = []), (at = 0), tell())">
        clear
      </button>
      <button type="button" class="word-button small" @click="((mark = null), emit('plain'))">
        mark without the rubric
      </button>
    </p>
  </section>
</template>

<style scoped>
.rubric,
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
.foot {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.sum strong {
  font-size: var(--size-unit);
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
