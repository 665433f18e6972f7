<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'
import { type Shown, allOf, countOf, countWords, standOf } from './graph'
import PlaceBar from './PlaceBar.vue'

/** One place: what it is, a bar of who is before, at and past it, and the same in words. */
const props = defineProps<{
  shown: Shown
  sections: Schemas['ConditionSection'][]
  /** A bar for each section instead of one for all. */
  beside: boolean
  /** Whose way is followed. */
  student: number | null
  faults: string[]
  chosen: boolean
  dim: boolean
}>()
const emit = defineEmits<{ choose: [] }>()

const place = computed(() => props.shown.places[0]!)
const counts = computed(() =>
  props.beside
    ? props.sections.map((one) => ({ section: one, count: countOf(place.value, new Set([one.section])) }))
    : [{ section: null, count: countOf(place.value, new Set(props.sections.map((one) => one.section))) }],
)
const theirs = { before: 'not open to them yet', at: 'open to them', past: 'done', missed: 'missed' }
const words = computed(() => {
  if (props.shown.isFolded) {
    const conditions = props.shown.places.filter((one) => one.condition !== null).length
    return conditions ? counted(conditions, 'condition') : 'asked for by others'
  }
  if (props.student !== null) {
    const stand = standOf(place.value, props.student)
    return stand ? theirs[stand] : 'not for them'
  }
  return countWords(place.value, countOf(place.value, new Set(props.sections.map((one) => one.section))))
})
const hint = computed(() =>
  place.value.isHidden && !props.shown.isFolded && props.student === null ? ' · students are not told' : '',
)
const waits = computed(() => counts.value.some((one) => one.count.forFeedback > 0))
</script>

<template>
  <button
    type="button"
    class="node"
    :class="{ chosen, dim, waits }"
    :aria-pressed="chosen"
    :title="[shown.title, place.condition ?? ''].filter(Boolean).join('\n')"
    @click="emit('choose')"
  >
    <span class="name"
      ><span v-if="shown.code" class="code">{{ shown.code }}</span> {{ shown.title }}</span
    >
    <template v-if="!shown.isFolded">
      <span v-for="{ section, count } in counts" :key="section?.section ?? 0" class="bars">
        <SectionKey v-if="section" :letter="section.letter" :name="section.name" short />
        <PlaceBar v-if="allOf(count) > 0" :count="count" />
        <span v-else class="nobody"></span>
      </span>
    </template>
    <span class="small words">
      <span v-if="faults.length" class="fault">? {{ faults[0] }}</span>
      <template v-else>{{ words }}{{ hint }}</template>
    </span>
  </button>
</template>

<style scoped>
.node {
  display: block;
  width: 100%;
  height: 100%;
}
.name {
  display: block;
  height: 26px;
  overflow: hidden;
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-line) solid var(--ink-2);
  font-weight: 600;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chosen .name,
.waits .name {
  border-bottom: var(--stroke-bold) solid var(--ink);
}
.chosen .name {
  border-color: var(--accent);
}
.code {
  font-weight: 600;
}
.bars {
  display: flex;
  align-items: center;
  gap: var(--space-3);
  height: 13px;
}
.nobody {
  flex: 1;
  border-top: var(--stroke-hair) dotted var(--hair);
}
.words {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.fault {
  color: var(--accent);
}
.dim {
  opacity: 0.6;
}
.dim:is(:hover, :focus-visible) {
  opacity: 1;
}
</style>
