<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import TimetableFields from '../../parts/timing/TimetableFields.vue'
import { draftsOf, slotsOf } from '../../parts/timing/slots'
import type { Card } from './useSections'

/** When a section meets; what follows for its classes and dates stands there before it is so. */
const props = defineProps<{ edition: number; answer: Schemas['SectionsAnswer']; card: Card }>()
const emit = defineEmits<{ close: [] }>()

const drafts = ref(draftsOf(props.card.slots))
const version = props.card.version
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-timetable')
const request = computed(() => {
  const slots = slotsOf(drafts.value)
  const same = JSON.stringify(slots) === JSON.stringify(slotsOf(draftsOf(props.card.slots)))
  return slots && !same ? { section: props.card.id, slots, version } : null
})
const reach = useReach(request, change.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await change.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="When it meets"
    :problem="change.problem.value"
    :reach="reach"
    meant="Save the timetable"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line"><SectionKey :letter="card.letter" :name="card.name" /> <span>meets</span></p>
    <TimetableFields v-model="drafts" :days="answer.days" :periods="answer.periods" />
  </CommandPanel>
</template>
