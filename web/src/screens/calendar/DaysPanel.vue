<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import PeriodRows from './PeriodRows.vue'
import { type MarkDraft, markOf, periodsOf } from './yearSheet'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** Days that are to be closed, extra or special; what that does to every section stands there before it is so. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer']; draft: MarkDraft }>()
const emit = defineEmits<{ close: [] }>()

const draft = ref({ ...props.draft })
const mark = useTermCommand(
  toRef(() => props.calendar.term),
  '/api/terms/{term}/mark-days',
)
const isSame = computed(
  () => draft.value.id !== null && JSON.stringify(markOf(draft.value)) === JSON.stringify(markOf(props.draft)),
)
const request = computed(() => {
  const whole = markOf(draft.value)
  return whole && !isSame.value ? { marks: [whole] } : null
})
// Before it has a name it can be looked at all the same.
const looked = computed(() => {
  const whole = markOf({ ...draft.value, name: draft.value.name || '?' })
  return whole && !isSame.value ? { marks: [whole] } : null
})
const reach = useReach(looked, mark.preview)
const meant = computed(() =>
  draft.value.id !== null
    ? 'Save'
    : { closure: 'Close the school on these days', extra: 'Hold classes that day', special: 'Save this special day' }[
        draft.value.kind
      ],
)

const kinds = [
  { value: 'closure' as const, title: 'closed' },
  { value: 'extra' as const, title: 'an extra day with classes' },
  { value: 'special' as const, title: 'a special day' },
]

function ownPeriods(own: boolean): void {
  draft.value.own = own
  if (own && draft.value.periods.length === 0) draft.value.periods = periodsOf(props.calendar.periods)
}

async function send(): Promise<void> {
  if (!request.value) return
  await mark.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="Days in the calendar"
    :problem="mark.problem.value"
    :reach="reach"
    :meant="meant"
    :disabled="!request || mark.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <DateField v-model="draft.first" label="First day" :min="calendar.first" :max="calendar.last" />
      <span v-if="draft.kind === 'closure'" class="line"
        >to <DateField v-model="draft.last" label="Last day" :min="draft.first"
      /></span>
      <OneOfField v-model="draft.kind" label="What kind of day" :choices="kinds" />
      <span class="line"
        >called <WordField v-model="draft.name" label="Name" class="name" :maxlength="120" autofocus
      /></span>
    </p>
    <template v-if="draft.kind === 'special'">
      <p class="line">
        <span>runs as</span>
        <ChoiceField
          v-model="draft.runs"
          label="Runs as"
          :choices="[
            { value: '', title: 'its usual day' },
            ...calendar.labels.map((label) => ({ value: label.label, title: label.words })),
          ]"
        />
        <OneOfField
          :model-value="draft.own"
          label="Its periods"
          :choices="[
            { value: false, title: 'in the term’s periods' },
            { value: true, title: 'in periods of its own' },
          ]"
          @update:model-value="ownPeriods"
        />
      </p>
      <PeriodRows v-if="draft.own" v-model="draft.periods" of="of this day" />
    </template>
  </CommandPanel>
</template>
