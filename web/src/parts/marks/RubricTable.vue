<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { besides, levelName } from './rubric'

/** A rubric to read: criteria down, levels across; what was given stands out. */
const props = defineProps<{
  rubric: Schemas['RubricForm']
  given?: readonly Schemas['LevelGiven'][] | null
  /** Whether what was given is what the student said of it. */
  isOnes?: boolean
  /** What the student said of it; null: nothing. */
  own?: readonly Schemas['LevelGiven'][] | null
  /** Whose that is, such as `you`. */
  ownWords?: string
}>()
const of = (criterion: string) => props.given?.find((one) => one.criterion === criterion)
const isOwn = (criterion: string, level: string) =>
  props.own?.some((one) => one.criterion === criterion && one.level === level) === true
</script>

<template>
  <dl class="rubric" :aria-label="rubric.name">
    <div v-for="criterion in rubric.criteria" :key="criterion.id" class="criterion">
      <dt>
        {{ criterion.title }}
        <span v-if="besides(criterion)" class="small second">{{ besides(criterion) }}</span>
        <span v-if="given && !of(criterion.id)" class="small second">{{ isOnes ? 'not judged' : 'not marked' }}</span>
      </dt>
      <dd v-for="level in criterion.levels" :key="level.id" :class="{ given: of(criterion.id)?.level === level.id }">
        <span class="name">{{ levelName(level) }}</span>
        <template v-if="of(criterion.id)?.level === level.id">
          <span v-if="of(criterion.id)?.points != null" class="points">{{ of(criterion.id)!.points }}</span>
          <span class="said-only"> given</span>
        </template>
        <span v-if="isOwn(criterion.id, level.id)" class="small"> {{ ownWords }}</span>
        <span v-if="level.words" class="words">{{ level.words }}</span>
      </dd>
    </div>
  </dl>
</template>

<style scoped>
.rubric {
  display: grid;
  border-top: var(--stroke-hair) solid var(--hair);
}
.criterion {
  display: grid;
  grid-template-columns: minmax(110px, 3fr);
  grid-auto-columns: minmax(0, 4fr);
  grid-auto-flow: column;
  gap: var(--space-4);
  border-bottom: var(--stroke-hair) solid var(--hair);
}
dt,
dd {
  margin: 0;
  padding: var(--space-3) var(--space-2) var(--space-4);
}
dt {
  font-weight: 600;
}
dt .small {
  display: block;
  font-weight: 400;
}
dd {
  border-bottom: var(--stroke-strong) solid transparent;
}
.name {
  color: var(--ink-2);
}
.words {
  display: block;
  overflow-wrap: anywhere;
}
.given {
  background: var(--wash);
  border-color: var(--accent);
}
.points {
  font-weight: 600;
}
.points::before {
  content: ' ';
}
@media (max-width: 700px) {
  .criterion {
    grid-auto-flow: row;
    grid-auto-columns: auto;
    gap: 0;
  }
}
</style>
