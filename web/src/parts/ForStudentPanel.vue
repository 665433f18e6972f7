<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../foundation/api/client'
import { useEditionCommand } from '../foundation/commands/useEditionCommand'
import { useReach } from '../foundation/commands/useReach'
import { useLevels } from '../foundation/levels'
import CommandPanel from './CommandPanel.vue'
import ChoiceField from './fields/ChoiceField.vue'
import DateField from './fields/DateField.vue'
import NumberField from './fields/NumberField.vue'

/** Something is made different for a student or some, in a sentence whose parts are chosen. */
const props = defineProps<{
  edition: number
  students: readonly number[]
  name: string
  items: readonly { id: number; title: string; differs: readonly string[] }[]
  /** What is meant unless something else is chosen. */
  first?: Schemas['ForStudentsRequest']['change']
}>()
const emit = defineEmits<{ close: [] }>()

type Change = Schemas['ForStudentsRequest']['change']
const levels = useLevels()
const change = ref<Change>(props.first ?? 'more-time')
const by = ref<'days' | 'until'>('days')
const days = ref<number | null>(7)
const until = ref<string | null>(null)
const [has, is] = props.students.length === 1 ? ['has', 'is'] : ['have', 'are']
const choices = computed(() =>
  (
    [
      ['more-time', `${has} more time`],
      ['excuse', `${is} excused`],
      ['open', `${has} it opened now`],
      ['leave-out', `${is} left out`],
      ['add', `${is} added, whatever group it is for`],
      ['put-back', `${has} the same as everybody`],
    ] as const
  )
    .filter(([value]) => value !== 'put-back' || props.items.some((item) => item.differs.length > 0))
    .map(([value, title]) => ({ value, title })),
)
const what = computed(() =>
  props.items.length === 1 ? props.items[0]!.title : levels.value.item.counted(props.items.length),
)
const command = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/for-students')
const asked = computed(() => {
  const later = change.value === 'more-time'
  const some = later && by.value === 'days' ? days.value : null
  const day = later && by.value === 'until' ? until.value : null
  if (later && some === null && day === null) return null
  return {
    students: [...props.students],
    items: props.items.map((item) => item.id),
    change: change.value,
    days: some,
    until: day,
  }
})
const reach = useReach(asked, (request, signal) => command.preview(request, signal))
const meant: Record<Change, string> = {
  'more-time': 'Give more time',
  excuse: 'Excuse',
  open: 'Open',
  'leave-out': 'Leave out',
  add: 'Add',
  'put-back': 'Put back',
}
const send = () =>
  asked.value &&
  command.run(asked.value).then(
    () => emit('close'),
    () => undefined,
  )
</script>

<template>
  <CommandPanel
    :label="`Something different for ${name}`"
    :problem="command.problem.value"
    :reach="reach"
    :meant="meant[change]"
    :disabled="!asked || command.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <b>{{ what }}:</b> <span>{{ name }}</span>
      <ChoiceField v-model="change" label="What is different" :choices="choices" />
      <template v-if="change === 'more-time'">
        <ChoiceField
          v-model="by"
          label="How the time is said"
          :choices="[
            { value: 'days', title: 'by days' },
            { value: 'until', title: 'until a day' },
          ]"
        />
        <template v-if="by === 'days'"
          ><NumberField v-model="days" label="Days more" :min="1" :max="365" /> <span>days later</span></template
        >
        <DateField v-else v-model="until" label="Until" />
      </template>
    </p>
  </CommandPanel>
</template>
