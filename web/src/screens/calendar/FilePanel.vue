<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { type Problem, type Schemas, api, ask, problemOf } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import TickField from '../../parts/fields/TickField.vue'

/** Closures of a calendar file: seen and chosen before any is marked. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const found = ref<Schemas['ClosuresOfFileAnswer'] | null>(null)
const wanted = ref<boolean[]>([])
const reading = ref(false)
const trouble = ref<Problem | null>(null)
const mark = useTermCommand(
  toRef(() => props.calendar.term),
  '/api/terms/{term}/mark-days',
)
const request = computed(() => {
  const marks = (found.value?.closures ?? []).filter((_, n) => wanted.value[n])
  return marks.length === 0
    ? null
    : {
        marks: marks.map(({ first, last, name }) => ({
          id: null,
          version: 0,
          gone: false,
          kind: 'closure',
          first,
          last,
          name,
          runs: null,
          periods: null,
        })),
      }
})
const reach = useReach(request, mark.preview)

async function read(chosen: File | File[] | null): Promise<void> {
  const file = Array.isArray(chosen) ? chosen[0] : chosen
  if (!file) return
  reading.value = true
  trouble.value = null
  found.value = null
  try {
    const text = await file.text()
    found.value = await ask(
      api.POST('/api/terms/{term}/closures-of-file', {
        params: { path: { term: props.calendar.term } },
        body: { text },
      }),
    )
    wanted.value = found.value.closures.map((closure) => !closure.standing && closure.classDays > 0)
  } catch (error) {
    trouble.value = problemOf(error)
  }
  reading.value = false
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
    label="Closures of a calendar file"
    :problem="trouble ?? mark.problem.value"
    :reach="reach"
    :meant="request ? `Close the school on these (${request.marks.length})` : 'Close the school on these'"
    :disabled="!request || mark.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>A calendar file (iCalendar, .ics)</span>
      <v-file-input
        class="file"
        aria-label="Calendar file"
        placeholder="choose a file"
        accept=".ics,text/calendar"
        @update:model-value="read"
      />
      <span v-if="reading" class="second" role="status">Reading …</span>
      <span v-else-if="!found" class="second"
        >Its whole-day events in the term are listed here before anything is marked.</span
      >
    </p>
    <ul v-if="found" class="ruled found">
      <li v-for="(closure, n) in found.closures" :key="`${closure.first} ${closure.name}`">
        <TickField
          :model-value="wanted[n] ?? false"
          :label="closure.words"
          @update:model-value="wanted[n] = Boolean($event)"
        />
        <span>{{ closure.name }}</span>
        <span class="small">{{
          closure.standing
            ? 'marked already'
            : closure.classDays === 0
              ? 'no class day'
              : closure.classDays === 1
                ? '1 class day'
                : `${closure.classDays} class days`
        }}</span>
      </li>
      <li v-if="found.closures.length === 0" class="second">This file has no whole-day event in the term.</li>
      <li v-for="left in found.leftOut" :key="left" class="left small">Left out: {{ left }}</li>
    </ul>
  </CommandPanel>
</template>

<style scoped>
.found {
  max-height: 220px;
  overflow: auto;
}
.found li {
  display: grid;
  grid-template-columns: 210px 1fr 140px;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
.found .left,
.found li.second {
  grid-template-columns: 1fr;
}
</style>
