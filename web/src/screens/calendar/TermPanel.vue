<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import PeriodRows from './PeriodRows.vue'
import { termDraftOf, termOf } from './yearSheet'

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
    meant="Set the term so"
    :disabled="!request || set.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <label>from <input v-model="draft.first" type="date" autofocus /></label>
      <label>to <input v-model="draft.last" type="date" :min="draft.first" /></label>
      <span class="days" role="group" aria-label="Weekdays with classes">
        <label v-for="(words, day) in week" :key="day"
          ><input v-model="draft.weekdays" type="checkbox" :value="day" />{{ words }}</label
        >
      </span>
    </p>
    <p class="line">
      <label
        >days are called
        <select v-model="draft.kind">
          <option value="weekly">by the weekday, each week alike</option>
          <option value="weeks">by weeks in turn</option>
          <option value="days">by class days in turn</option>
        </select></label
      >
      <template v-if="draft.kind !== 'weekly'">
        <label
          >namely
          <input v-model="draft.labels" type="text" :placeholder="draft.kind === 'weeks' ? 'A, B' : '1, 2, 3, 4, 5, 6'"
        /></label>
        <label
          ><input v-model="draft.count" type="checkbox" />{{
            draft.kind === 'weeks' ? 'a week without classes takes none' : 'a closed weekday takes one too'
          }}</label
        >
      </template>
      <label
        >a due of the course on a day without classes
        <select v-model="draft.offDays">
          <option value="stay">stays there</option>
          <option value="back">goes to the class day before</option>
          <option value="forward">goes to the class day after</option>
        </select></label
      >
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
