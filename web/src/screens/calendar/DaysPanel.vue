<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import PeriodRows from './PeriodRows.vue'
import { type MarkDraft, markOf, periodsOf } from './yearSheet'

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
    ? 'Mark it so'
    : { closure: 'Close the school then', extra: 'Hold classes that day', special: 'Run the day so' }[draft.value.kind],
)

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
      <label
        ><input v-model="draft.first" type="date" :min="calendar.first" :max="calendar.last" aria-label="First day"
      /></label>
      <label v-if="draft.kind === 'closure'"
        >to <input v-model="draft.last" type="date" :min="draft.first" aria-label="Last day"
      /></label>
      <label><input v-model="draft.kind" type="radio" value="closure" />closed</label>
      <label><input v-model="draft.kind" type="radio" value="extra" />an extra day with classes</label>
      <label><input v-model="draft.kind" type="radio" value="special" />a special day</label>
      <label>called <input v-model="draft.name" type="text" maxlength="120" autofocus /></label>
    </p>
    <template v-if="draft.kind === 'special'">
      <p class="line">
        <label
          >runs as
          <select v-model="draft.runs">
            <option value="">its own day</option>
            <option v-for="label in calendar.labels" :key="label.label" :value="label.label">{{ label.words }}</option>
          </select></label
        >
        <label><input type="radio" :checked="!draft.own" @change="ownPeriods(false)" />in the term’s periods</label>
        <label><input type="radio" :checked="draft.own" @change="ownPeriods(true)" />in periods of its own</label>
      </p>
      <PeriodRows v-if="draft.own" v-model="draft.periods" of="of this day" />
    </template>
  </CommandPanel>
</template>
