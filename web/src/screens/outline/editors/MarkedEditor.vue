<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import NumberField from '../../../parts/fields/NumberField.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { markedSentence, usualScales } from '../../../parts/marks/marked'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** How an item is marked: in points, per cent, the levels of a short scale, or in words only. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const MOST_LEVELS = 10
const before = props.item.marked
const { version, overTheirs } = usePinned(props.item.version)
const how = ref(before?.as ?? 'words')
const outOf = ref<number | null>(before?.outOf ?? null)
const levels = ref(
  before?.levels.length
    ? before.levels.map(({ name, percent }) => ({ name, percent: percent ?? null }))
    : namesOf(usualScales[0]!),
)
const hasPercents = ref(levels.value.some((level) => level.percent !== null))
const ways = [
  { value: 'words', title: 'in words only' },
  { value: 'points', title: 'in points' },
  { value: 'percent', title: 'in per cent' },
  { value: 'scale', title: 'on a short scale' },
]

function namesOf(names: readonly string[]) {
  return names.map((name) => ({ name, percent: null as number | null }))
}

/** Spread evenly from 0 to 100 to begin with. */
function setPercents(wanted: boolean): void {
  hasPercents.value = wanted
  const last = levels.value.length - 1
  levels.value.forEach((level, at) => (level.percent = wanted ? Math.round((100 * at) / last) : null))
}

const mark = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/mark-item-as')
const marked = computed<Schemas['MarkedForm'] | null>(() =>
  how.value === 'words'
    ? null
    : {
        as: how.value,
        outOf: outOf.value ?? (how.value === 'points' ? 10 : 100),
        levels: how.value === 'scale' ? levels.value : [],
      },
)
const isWhole = computed(
  () =>
    how.value !== 'scale' ||
    levels.value.every((level) => level.name.trim() !== '' && (!hasPercents.value || level.percent !== null)),
)
const request = computed(() =>
  !isWhole.value || JSON.stringify(marked.value) === JSON.stringify(before)
    ? null
    : { item: props.item.id, marked: marked.value, version: version.value },
)
const reach = useReach(request, mark.preview)

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(mark.problem.value)
  void save()
}

async function save(): Promise<void> {
  if (!request.value) return
  await mark.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="editor" aria-label="How it is marked" @submit.prevent="save" @keydown.esc.stop="emit('close')">
    <OneOfField v-model="how" label="It is marked" :choices="ways" />
    <p v-if="how === 'points'" class="line">
      <span>out of</span>
      <NumberField v-model="outOf" label="Full points" :min="0.01" :max="10000" :decimals="2" />
      <span>points</span>
    </p>
    <template v-else-if="how === 'scale'">
      <p class="line second">
        <span>Lowest first. Begin with</span>
        <button
          v-for="scale in usualScales"
          :key="scale[0]"
          type="button"
          class="word-button"
          @click="((levels = namesOf(scale)), (hasPercents = false))"
        >
          {{ scale.join(' · ') }}
        </button>
      </p>
      <ul class="levels" aria-label="Levels">
        <li v-for="(level, at) in levels" :key="at" class="line">
          <WordField v-model="level.name" class="what" :label="`Level ${at + 1}`" :maxlength="40" />
          <template v-if="hasPercents">
            <NumberField
              v-model="level.percent"
              :label="`Per cent of ${level.name || `level ${at + 1}`}`"
              :max="100"
              :decimals="2"
            />
            <span>%</span>
          </template>
          <button
            v-if="levels.length > 2"
            type="button"
            class="word-button small"
            :aria-label="`Remove ${level.name || `level ${at + 1}`}`"
            @click="levels.splice(at, 1)"
          >
            remove
          </button>
        </li>
      </ul>
      <p class="line">
        <button
          v-if="levels.length < MOST_LEVELS"
          type="button"
          class="word-button"
          @click="levels.push({ name: '', percent: null })"
        >
          Add a level
        </button>
        <TickField
          :model-value="hasPercents"
          label="each level stands for a percentage, and counts in totals"
          @update:model-value="setPercents($event === true)"
        />
      </p>
    </template>
    <p v-if="how === 'percent' || (how === 'scale' && hasPercents)" class="line">
      <span>In a total it counts as</span>
      <NumberField v-model="outOf" label="Points it counts as" :min="0.01" :max="10000" :decimals="2" optional />
      <span>points; 100 unless you say so</span>
    </p>
    <p class="small second">{{ markedSentence(marked) }}</p>
    <ProblemNote v-if="mark.problem.value" :problem="mark.problem.value">
      <v-btn v-if="mark.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || mark.busy.value">Set how it is marked</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>

<style scoped>
.levels {
  list-style: none;
  display: grid;
  gap: var(--space-3);
}
.what {
  width: 240px;
  flex: none;
}
</style>
