<script setup lang="ts">
import { computed, ref } from 'vue'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { spokenDate, typedDate } from '../../foundation/dates/typedDate'
import { useTyped } from './useTyped'

/** A date: typed freely – “22/10”, “thu”, “+3 classes” – or picked from a month. It stands there as *Thu 22 Oct*. */
const props = defineProps<{
  label: string
  /** The days of whoever has classes other than the school's. */
  classDays?: readonly string[]
  min?: string
  max?: string
  placeholder?: string
  disabled?: boolean
}>()
/** `2026-10-22`; empty: none. */
const date = defineModel<string | null>({ required: true })

const school = useSchoolDays()
const days = computed(() => ({ ...school.value, ...(props.classDays && { classDays: props.classDays }) }))
const outside = (known: string) =>
  props.min && known < props.min
    ? `Choose ${spokenDate(props.min, days.value)} or later.`
    : props.max && known > props.max
      ? `Choose ${spokenDate(props.max, days.value)} or earlier.`
      : ''
const { text, problem, settle, settleFirst, rewrite } = useTyped(
  date,
  () => (date.value ? spokenDate(date.value, days.value) : ''),
  (written) => {
    const typed = typedDate(written, days.value, date.value)
    if ('problem' in typed) return typed
    const wrong = typed.date ? outside(typed.date) : ''
    return wrong ? { problem: wrong } : { value: typed.date ?? '' }
  },
)
const picking = ref(false)

const pad = (n: number) => `${n}`.padStart(2, '0')
/** What a picker of months takes and gives is a day of this device's calendar. */
const picked = computed({
  get: () => (date.value ? new Date(`${date.value}T12:00`) : null),
  set: (day: Date | null) => {
    picking.value = false
    if (day) date.value = `${day.getFullYear()}-${pad(day.getMonth() + 1)}-${pad(day.getDate())}`
    rewrite()
  },
})
const month = computed(() => new Date(`${date.value || days.value.today}T12:00`))
</script>

<template>
  <v-text-field
    v-model="text"
    class="date"
    :class="{ unread: problem }"
    autocomplete="off"
    :aria-label="label"
    :placeholder="placeholder ?? 'a date'"
    :disabled="disabled"
    :error-messages="problem"
    @blur="settle"
    @keydown.enter="settleFirst"
  >
    <template #append-inner>
      <v-menu v-model="picking" :close-on-content-click="false">
        <template #activator="{ props: opener }">
          <button
            v-bind="opener"
            type="button"
            class="opener"
            :aria-label="`${label}: pick it from a month`"
            :disabled="disabled"
          >
            <v-icon icon="$dropdown" size="16" />
          </button>
        </template>
        <v-date-picker
          v-model="picked"
          :month="month.getMonth()"
          :year="month.getFullYear()"
          :min="min"
          :max="max"
          hide-header
          show-adjacent-months
          first-day-of-week="1"
        />
      </v-menu>
    </template>
  </v-text-field>
</template>

<style scoped>
.date {
  width: 128px;
}
</style>
