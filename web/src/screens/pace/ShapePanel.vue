<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { type Shape, differenceOf } from './paceDrag'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import NumberField from '../../parts/fields/NumberField.vue'

/** A lesson is fixed to a date, or stretched, in one section: what that moves stands there before it is so. */
const props = defineProps<{
  edition: number
  pace: Schemas['PaceAnswer']
  section: Schemas['PaceSection']
  place: number
  shape: Shape
}>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const lesson = computed(() => props.pace.lessons[props.place]!)
const run = computed(() => props.section.lessons.find((one) => one.place === props.place)!)
const field = ref(props.shape.field)
const date = ref(props.shape.field === 'pin' ? (props.shape.value ?? '') : (run.value.pin ?? ''))
const classDays = computed(() => props.section.classes.map((one) => one.date))
const length = ref<number | null>(
  props.shape.field === 'length' ? (props.shape.value ?? run.value.length) : run.value.length,
)
const differ = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
const wanted = computed<Shape | null>(() => {
  if (field.value === 'pin')
    return date.value && date.value !== run.value.pin ? { field: 'pin', value: date.value } : null
  return length.value !== null && length.value !== run.value.length ? { field: 'length', value: length.value } : null
})
const request = computed(() => wanted.value && differenceOf(props.section, run.value, wanted.value))
const reach = useReach(request, differ.preview)
const differs = computed(() => (field.value === 'pin' ? run.value.pinVersion : run.value.lengthVersion) > 0)

const send = (what: ReturnType<typeof differenceOf> | null) =>
  what &&
  differ.run(what).then(
    () => emit('close'),
    () => undefined,
  )
const putBack = () => send(differenceOf(props.section, run.value, { field: field.value, value: null }))
</script>

<template>
  <CommandPanel
    :label="`The date and length of ${levels.lesson.a}`"
    :problem="differ.problem.value"
    :reach="reach"
    meant="Change for this section"
    :disabled="!request || differ.busy.value"
    @submit="send(request)"
    @close="emit('close')"
  >
    <p class="line">
      <span>In</span>
      <SectionKey :letter="section.letter" :name="section.name" />
      <b>{{ lesson.code }} {{ lesson.title }}</b>
      <ChoiceField
        v-model="field"
        label="What changes"
        :choices="[
          { value: 'pin', title: 'is fixed to' },
          { value: 'length', title: 'lasts' },
        ]"
      />
      <DateField v-if="field === 'pin'" v-model="date" label="Date" :class-days="classDays" />
      <template v-else><NumberField v-model="length" label="Length" :max="2000" /> {{ pace.unit }}</template>
    </p>
    <template #more>
      <v-btn v-if="differs" :disabled="differ.busy.value" @click="putBack">Put back</v-btn>
    </template>
  </CommandPanel>
</template>
