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
import { type Act, type Asked, itemsOf, placesOf, stepsOf } from './chosenActs'
import ConditionFields from '../../../parts/condition/ConditionFields.vue'
import { draftOf, gateOf, newLeaf, newSeveral } from '../../../parts/condition/draft'
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
const change = defineModel<Asked | null>({ required: true })
const levels = useLevels()

const purpose = ref<string | null>(null)
const timing = ref(choiceOf({ at: props.act === 'due' ? 'lesson-end' : 'lesson-start' }))
const condition = ref({ ...draftOf(null), root: newSeveral([newLeaf()]) })
const askable = useAnswer(() => questions.askable(props.edition))
const deed = ref('returned')
/** What can happen to each of them but the last. */
const deeds = computed(() => {
  const before = itemsOf(props.chosen).slice(0, -1)
  const can = before.map((item) => askable.data.value?.items.find((one) => one.lineage === item.lineage)?.deeds ?? [])
  return [
    { value: 'returned', title: 'is given back with feedback' },
    { value: 'submitted', title: 'is handed in' },
    { value: 'ticked', title: 'is ticked off' },
    { value: 'opened', title: 'is opened' },
  ].filter(({ value }) => can.every((known) => known.includes(value)))
})
watch(deeds, (now) => {
  if (!now.some(({ value }) => value === deed.value)) deed.value = now[0]?.value ?? 'opened'
})
const place = ref('')
const groups = ref<string[]>([])
const some = ref(true)
const held = ref<number[]>([])
const known = useAnswer(() => questions.groups(props.edition))
const places = computed(() => placesOf(props.rows, props.chosen, levels.value))
const whole = computed(() => {
  switch (props.act) {
    case 'purpose':
      return purpose.value ? { purpose: purpose.value } : null
    case 'condition':
      return gateOf(condition.value) === undefined
        ? null
        : { condition: { gate: gateOf(condition.value) as Schemas['ItemsCondition']['gate'] } }
    case 'steps':
      return itemsOf(props.chosen).length > 1 ? { conditions: stepsOf(props.chosen, deed.value) } : null
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
  <div v-else-if="act === 'condition'">
    <ConditionFields
      v-model="condition"
      :edition="edition"
      :without="itemsOf(chosen).map((item) => item.lineage)"
      :before="itemsOf(chosen)[0]?.lineage"
    />
    <p v-if="condition.root.parts.length === 0" class="small second">Nothing: their conditions are taken off.</p>
  </div>
  <template v-else-if="act === 'steps'">
    <template v-if="itemsOf(chosen).length > 1">
      <span>each opens when the one before it</span>
      <ChoiceField v-model="deed" label="What must have happened to the one before" :choices="deeds" />
      <span class="small second"
        >{{
          itemsOf(chosen)
            .map((item) => item.code)
            .join(' → ')
        }}, in place of the conditions they have</span
      >
    </template>
    <span v-else class="second">choose at least two</span>
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
