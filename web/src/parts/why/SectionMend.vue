<script setup lang="ts">
import { ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../CommandPanel.vue'

/** Something a section does differently so that an item opens: who else that touches is said before. */
const props = defineProps<{ edition: number; mend: Schemas['WhyMend']; section: string }>()
const emit = defineEmits<{ close: [] }>()

const command = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
const asked = ref({ changes: props.mend.changes })
const reach = useReach(asked, (request, signal) => command.preview(request, signal))
const meant: Record<string, string> = {
  'move-opening': 'Open it at once',
  'put-back-hold': 'Keep it back no longer',
  publish: 'Publish it here',
}
const send = () =>
  command.run(asked.value).then(
    () => emit('close'),
    () => undefined,
  )
</script>

<template>
  <CommandPanel
    :label="`For everybody in ${section}`"
    :problem="command.problem.value"
    :reach="reach"
    :meant="meant[mend.kind] ?? 'Do it'"
    :disabled="command.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <b>{{ section }}:</b> <span>{{ mend.words }}</span>
    </p>
  </CommandPanel>
</template>
