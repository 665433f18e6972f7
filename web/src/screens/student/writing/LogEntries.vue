<script setup lang="ts">
import { computed, ref } from 'vue'
import { spokenDate } from '../../../foundation/dates/typedDate'
import { useSchoolDays } from '../../../foundation/dates/schoolDays'
import DateField from '../../../parts/fields/DateField.vue'
import type { Entry } from './written'

/** A log: dated entries, the latest first. Each can be changed until the log is handed in. */
const props = defineProps<{ entries: Entry[]; today: string; canWrite: boolean }>()
const emit = defineEmits<{ change: [entries: Entry[]] }>()

const known = useSchoolDays()
// The school's day, whatever this device's clock says.
const days = computed(() => ({ ...known.value, today: props.today }))
const on = ref<string | null>(props.today)
const text = ref('')
/** The entry that is being changed; null: none. */
const changing = ref<number | null>(null)
const latestFirst = computed(() =>
  props.entries
    .map((entry, at) => ({ ...entry, at }))
    .sort((one, other) => other.on.localeCompare(one.on) || other.at - one.at),
)
const sorted = (entries: Entry[]) => [...entries].sort((one, other) => one.on.localeCompare(other.on))

function add(): void {
  if (!on.value || text.value.trim() === '') return
  emit('change', sorted([...props.entries, { on: on.value, text: text.value.trim() }]))
  text.value = ''
}

function rewrite(at: number, change: Partial<Entry>): void {
  emit(
    'change',
    props.entries.map((entry, place) => (place === at ? { ...entry, ...change } : entry)),
  )
}

/** Put in the order of their days, once it has been changed. */
function done(): void {
  changing.value = null
  emit('change', sorted(props.entries))
}
</script>

<template>
  <section class="log" aria-label="Your log">
    <form v-if="canWrite" class="new" @submit.prevent="add">
      <DateField v-model="on" label="Day of the entry" :max="days.today" />
      <v-textarea v-model="text" rows="3" maxlength="5000" aria-label="What you did or saw" />
      <v-btn type="submit" :disabled="!on || text.trim() === ''">Add the entry</v-btn>
    </form>
    <p v-if="!entries.length" class="second">
      No entries yet. Add one for each day; hand in the whole log when it is due.
    </p>
    <ol v-else aria-label="Entries">
      <li v-for="entry in latestFirst" :key="entry.at">
        <template v-if="changing === entry.at && canWrite">
          <DateField
            :model-value="entry.on"
            label="Day of this entry"
            :max="days.today"
            @update:model-value="$event && rewrite(entry.at, { on: $event })"
          />
          <v-textarea
            :model-value="entry.text"
            rows="3"
            maxlength="5000"
            :aria-label="`Entry of ${spokenDate(entry.on, days)}`"
            @update:model-value="rewrite(entry.at, { text: $event })"
          />
          <button type="button" class="word-button small" @click="done">done</button>
        </template>
        <template v-else>
          <span class="second">{{ spokenDate(entry.on, days) }}</span>
          <p class="text">{{ entry.text }}</p>
          <span v-if="canWrite" class="acts">
            <button
              type="button"
              class="word-button small"
              :aria-label="`Change the entry of ${spokenDate(entry.on, days)}`"
              @click="changing = entry.at"
            >
              change
            </button>
            <button
              type="button"
              class="word-button small"
              :aria-label="`Remove the entry of ${spokenDate(entry.on, days)}`"
              @click="
                emit(
                  'change',
                  entries.filter((_, at) => at !== entry.at),
                )
              "
            >
              remove
            </button>
          </span>
        </template>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.log {
  display: grid;
  gap: var(--space-5);
  padding-bottom: var(--space-4);
}
.new,
li {
  display: grid;
  grid-template-columns: 128px minmax(0, 1fr) auto;
  align-items: start;
  gap: var(--space-3) var(--space-5);
}
ol {
  list-style: none;
}
li {
  padding: var(--space-3) 0;
  border-top: var(--stroke-hair) solid var(--faint-hair);
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  gap: var(--space-4);
}
@media (max-width: 600px) {
  .new,
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
