<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import SectionKey from '../../../look/marks/SectionKey.vue'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import OneOfField from '../../../parts/fields/OneOfField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import TimingFields from '../../../parts/timing/TimingFields.vue'
import { anchorOf, choiceOf } from '../../../parts/timing/timing'
import { type Act, type Change, itemsOf, placesOf } from './chosenActs'
import { type Part, deedsFor, gateOf } from '../editors/condition'
import type { Row } from '../outlineRows'
import { questions } from '../../../foundation/api/questions'

/** The parts of one act on several items; what it comes to goes up as soon as it is whole. */
const props = defineProps<{
  edition: number
  act: Act
  chosen: Row[]
  rows: Row[]
  sections: Schemas['OutlineSection'][]
}>()
const change = defineModel<Change | { hold: number[] } | null>({ required: true })
const levels = useLevels()

const purpose = ref<string | null>(null)
const timing = ref(choiceOf({ at: props.act === 'due' ? 'lesson-end' : 'lesson-start' }))
const waitsFor = ref('')
const deed = ref<Part['is']>('returned')
const deeds = computed(() =>
  deedsFor(
    props.rows.flatMap((row) => (row.level === 'item' && row.item.lineage === waitsFor.value ? row.item.options : [])),
  ),
)
// What was asked of another item may not be asked of this one.
watch(deeds, (now) => {
  if (!now.some(({ value }) => value === deed.value)) deed.value = now[0]!.value
})
const place = ref('')
const groups = ref<string[]>([])
const some = ref(true)
const held = ref<number[]>([])
const known = useAnswer(() => questions.groups(props.edition))
const items = computed(() => new Set(itemsOf(props.chosen).map((item) => item.id)))
const places = computed(() => placesOf(props.rows, props.chosen, levels.value))
const others = computed(() =>
  props.rows.flatMap((row) =>
    row.level === 'item' && !items.value.has(row.item.id)
      ? [{ value: row.item.lineage, title: `${row.item.code} ${row.item.title}`, note: row.item.kind }]
      : [],
  ),
)

const whole = computed(() => {
  switch (props.act) {
    case 'purpose':
      return purpose.value ? { purpose: purpose.value } : null
    case 'condition':
      if (waitsFor.value === 'none') return { condition: { gate: null } }
      return waitsFor.value
        ? { condition: { gate: gateOf({ join: 'all', parts: [{ item: waitsFor.value, is: deed.value }] }) } }
        : null
    case 'move':
      return places.value?.find((one) => one.key === place.value)?.change ?? null
    case 'whom':
      if (!some.value) return { forWhom: { groups: null, except: [] } }
      return groups.value.length > 0 ? { forWhom: { groups: groups.value, except: [] } } : null
    case 'hold':
      return held.value.length > 0 ? { hold: held.value } : null
    default: {
      const anchor = anchorOf(timing.value)
      return anchor === undefined ? null : { date: { field: props.act, anchor } }
    }
  }
})
watch(whole, (now) => (change.value = now as typeof change.value), { immediate: true })
</script>

<template>
  <ChoiceField
    v-if="act === 'purpose'"
    v-model="purpose"
    label="What they are for"
    placeholder="choose"
    :choices="[
      { value: 'to-read', title: 'to read' },
      { value: 'practice', title: 'practice' },
      { value: 'for-marks', title: 'for marks' },
    ]"
  />
  <template v-else-if="act === 'condition'">
    <span>when, of</span>
    <ChoiceField
      v-model="waitsFor"
      label="What they wait for"
      :placeholder="`choose ${levels.item.a}`"
      :choices="[{ value: 'none', title: 'nothing: no condition' }, ...others]"
    />
    <ChoiceField
      v-if="waitsFor && waitsFor !== 'none'"
      v-model="deed"
      label="What must have happened"
      :choices="deeds"
    />
  </template>
  <span v-else-if="act === 'move' && !places" class="second"
    >{{ levels.unit.many }}, {{ levels.lesson.many }} and {{ levels.item.many }} go to different places; move them
    separately</span
  >
  <ChoiceField
    v-else-if="act === 'move' && places"
    v-model="place"
    label="Move to"
    placeholder="choose a place"
    :choices="places.map((one) => ({ value: one.key, title: one.title, note: one.note }))"
  />
  <template v-else-if="act === 'whom'">
    <OneOfField
      v-model="some"
      label="For whom"
      :choices="[
        { value: false, title: 'for everyone' },
        { value: true, title: 'only for those in' },
      ]"
    />
    <TickField
      v-for="group in known.data.value?.groups ?? []"
      :key="group.id"
      v-model="groups"
      :value="group.name"
      :label="group.name"
      :disabled="!some"
    />
    <span v-if="known.data.value?.groups.length === 0" class="second"
      >there are no groups yet: add one in Sections</span
    >
  </template>
  <template v-else-if="act === 'hold'">
    <span>in</span>
    <TickField v-for="section in sections" :key="section.id" v-model="held" :value="section.id">
      <SectionKey :letter="section.letter" :name="section.name" />
    </TickField>
  </template>
  <TimingFields v-else v-model="timing" name="When" />
</template>
