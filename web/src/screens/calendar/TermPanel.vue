<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import PeriodRows from './PeriodRows.vue'
import { termDraftOf, termOf } from './yearSheet'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import TickField from '../../parts/fields/TickField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** When the term is, on which weekdays there are classes, what the days are called, and their periods. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const draft = ref(termDraftOf(props.calendar))
const version = props.calendar.ownVersion
const same = JSON.stringify(termOf(draft.value, version))
const set = useTermCommand(
  toRef(() => props.calendar.term),
  '/api/terms/{term}/set-term',
)
const request = computed(() => {
  const whole = termOf(draft.value, version)
  return whole && JSON.stringify(whole) !== same ? whole : null
})
const reach = useReach(request, set.preview)
const week = { mon: 'Mon', tue: 'Tue', wed: 'Wed', thu: 'Thu', fri: 'Fri', sat: 'Sat', sun: 'Sun' }

const rotations = [
  { value: 'weekly' as const, title: 'by weekday, each week the same' },
  { value: 'weeks' as const, title: 'by weeks in turn' },
  { value: 'days' as const, title: 'by class days in turn' },
]
const offDays = [
  { value: 'stay' as const, title: 'stays there' },
  { value: 'back' as const, title: 'goes to the class day before' },
  { value: 'forward' as const, title: 'goes to the class day after' },
]

async function send(): Promise<void> {
  if (!request.value) return
  await set.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="The term"
    :problem="set.problem.value"
    :reach="reach"
    meant="Save the term"
    :disabled="!request || set.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span class="line">from <DateField v-model="draft.first" label="First day of the term" autofocus /></span>
      <span class="line">to <DateField v-model="draft.last" label="Last day of the term" :min="draft.first" /></span>
      <span class="days" role="group" aria-label="Weekdays with classes">
        <TickField v-for="(words, day) in week" :key="day" v-model="draft.weekdays" :value="day" :label="words" />
      </span>
    </p>
    <p class="line">
      <span>days are called</span>
      <ChoiceField v-model="draft.kind" label="Days are called" :choices="rotations" />
      <template v-if="draft.kind !== 'weekly'">
        <WordField
          v-model="draft.labels"
          label="Their names"
          :placeholder="draft.kind === 'weeks' ? 'A, B' : '1, 2, 3, 4, 5, 6'"
        />
        <TickField
          v-model="draft.count"
          :label="draft.kind === 'weeks' ? 'a week without classes is skipped' : 'a closed weekday counts too'"
        />
      </template>
      <span>what is due on a day without classes</span>
      <ChoiceField v-model="draft.offDays" label="What is due on a day without classes" :choices="offDays" />
    </p>
    <PeriodRows v-model="draft.periods" of="of an ordinary day" />
  </CommandPanel>
</template>

<style scoped>
.days {
  display: flex;
  gap: var(--space-5);
}
</style>
