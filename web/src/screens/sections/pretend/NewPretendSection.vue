<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import CommandPanel from '../../../parts/CommandPanel.vue'
import WordField from '../../../parts/fields/WordField.vue'
import TimetableFields from '../../../parts/timing/TimetableFields.vue'
import { draftsOf, slotsOf } from '../../../parts/timing/slots'

/** A section with nobody in it, on a timetable of its own: to see where the course lands before there is anybody to teach. */
const props = defineProps<{ edition: number; answer: Schemas['SectionsAnswer'] }>()
const emit = defineEmits<{ close: []; made: [name: string] }>()

const taken = props.answer.sections.map((one) => one.name)
const name = ref(['Try-out', 'Try-out 2', 'Try-out 3'].find((one) => !taken.includes(one)) ?? 'Try-out 4')
/** It meets as the first section does, until one says otherwise. */
const drafts = ref(draftsOf(props.answer.sections[0]?.slots ?? []))
const make = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/make-pretend-section')
const request = computed(() => {
  const slots = slotsOf(drafts.value)
  return slots && slots.length > 0 && name.value.trim() ? { name: name.value, slots } : null
})
const reach = useReach(request, make.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await make.run(request.value).then(
    () => emit('made', name.value.trim()),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="A pretend section"
    leave="Not now"
    :problem="make.problem.value"
    :reach="request ? reach : 'Say when it would meet.'"
    meant="Make the pretend section"
    :disabled="!request || make.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>A pretend section called</span>
      <WordField v-model="name" class="name" label="Name of the pretend section" autofocus />
      <span class="second">No student is ever in it, and it is counted nowhere.</span>
    </p>
    <TimetableFields v-model="drafts" :days="answer.days" :periods="answer.periods" />
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 180px;
}
</style>
