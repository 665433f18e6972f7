<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import DateField from '../../parts/fields/DateField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'

/** A section ends before the term does; or it goes on after all, with everybody in it. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer']; section: Schemas['TermSectionCard'] }>()
const emit = defineEmits<{ close: [] }>()

const { calendar, section } = props
const within = calendar.today < calendar.first ? calendar.first : calendar.today
const last = ref<string | null>(section.last ?? within)
const until = ref<'day' | 'term'>('day')
const version = section.version
const end = useTermCommand(
  toRef(() => props.calendar.term),
  '/api/terms/{term}/end-section',
)
const asked = computed(() => (until.value === 'term' ? null : last.value))
const request = computed(() =>
  asked.value === section.last || (until.value === 'day' && !last.value)
    ? null
    : { section: section.id, last: asked.value, version },
)
const reach = useReach(request, end.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await end.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    :label="`The last day of ${section.name}`"
    :problem="end.problem.value"
    :reach="reach"
    :meant="until === 'term' ? `Let ${section.name} go on` : `End ${section.name}`"
    :disabled="!request || end.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>{{ section.name }} is taught until</span>
      <DateField
        v-if="until === 'day'"
        v-model="last"
        :label="`Last day of ${section.name}`"
        :min="calendar.first"
        :max="calendar.last"
      />
      <OneOfField
        v-if="section.last"
        v-model="until"
        label="Until when"
        :choices="[
          { value: 'day', title: 'a day' },
          { value: 'term', title: 'the end of the term' },
        ]"
      />
      <span class="second"
        >After that it has no classes, nothing is due, and its students leave it. Everything they handed in is
        kept.</span
      >
    </p>
  </CommandPanel>
</template>
