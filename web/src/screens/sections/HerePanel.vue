<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { type Place, type What, idOf, lessonsOf, versionOf, waysOf } from './here'
import type { Card } from './useSections'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import NumberField from '../../parts/fields/NumberField.vue'

/** A unit or lesson is changed for one section: a sentence whose parts are chosen. */
const props = defineProps<{ edition: number; card: Card; place: Place; unit: string }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const ways = computed(() => waysOf(props.place))
const what = ref<What>(ways.value[0]!.what)
const length = ref<number | null>(props.place.of === 'lesson' ? props.place.lesson.length : 0)
const date = ref('')
const number = ref<number | null>(
  props.card.units.indexOf(props.card.units.find((one) => one.id === props.place.unit.id)!) + 1,
)
const others = computed(() => lessonsOf(props.card).filter((one) => one.id !== idOf(props.place)))
const after = ref(others.value[0]?.id ?? 0)
const edition = toRef(props, 'edition')
const differ = useEditionCommand(edition, '/api/editions/{edition}/differ')
const orderUnit = useEditionCommand(edition, '/api/editions/{edition}/order-unit')
const orderLesson = useEditionCommand(edition, '/api/editions/{edition}/order-lesson')
const value = computed(() => {
  if (what.value === 'length') return length.value
  if (what.value === 'pin') return date.value || null
  return true
})
/** What is asked, ready to be looked at or done. */
const asked = computed(() => {
  const { place, card } = props
  const target = idOf(place)
  if (what.value !== 'place') {
    if (value.value === null) return null
    const version = versionOf(card, place, what.value)
    const one = {
      section: card.id,
      of: place.of,
      target,
      field: what.value,
      putBack: false,
      value: value.value,
      version,
    }
    return of(differ, { changes: [one] })
  }
  if (place.of === 'lesson')
    return of(orderLesson, { section: card.id, lesson: target, after: after.value, version: place.lesson.orderVersion })
  if (number.value === null) return null
  return of(orderUnit, { section: card.id, unit: target, place: number.value, version: place.unit.orderVersion })
})
const reach = useReach(asked, (one, signal) => one.preview(signal))
const commands = [differ, orderUnit, orderLesson]
const problem = computed(() => commands.map((command) => command.problem.value).find(Boolean) ?? null)
const busy = computed(() => commands.some((command) => command.busy.value))

type Answer = ReturnType<typeof differ.run>
function of<R>(
  command: { preview: (request: R, signal: AbortSignal) => Answer; run: (request: R) => Answer },
  request: R,
) {
  return { preview: (signal: AbortSignal) => command.preview(request, signal), run: () => command.run(request) }
}

async function send(): Promise<void> {
  await asked.value?.run().then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="A change for this section"
    :problem="problem"
    :reach="reach"
    meant="Change for this section"
    :disabled="!asked || busy"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>In</span>
      <SectionKey :letter="card.letter" :name="card.name" />
      <b>{{ place.of === 'unit' ? place.unit.title : place.lesson.title }}</b>
      <ChoiceField
        v-model="what"
        label="What changes"
        :choices="ways.map((way) => ({ value: way.what, title: way.words }))"
      />
      <template v-if="what === 'length'"
        ><NumberField v-model="length" label="Length" :max="2000" /> <span>{{ unit }}</span></template
      >
      <DateField v-if="what === 'pin'" v-model="date" label="Date" />
      <template v-if="what === 'place' && place.of === 'unit'">
        <NumberField v-model="number" label="Place" :min="1" :max="card.units.length" />
        <span>of {{ levels.unit.counted(card.units.length) }}</span>
      </template>
      <ChoiceField
        v-if="what === 'place' && place.of === 'lesson'"
        v-model="after"
        label="Comes after"
        :choices="others.map((one) => ({ value: one.id, title: one.title }))"
      />
    </p>
  </CommandPanel>
</template>
