<script setup lang="ts">
import { computed, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'
import type { Card } from './useSections'

/** A section stops following, and keeps the course as it stands as its own, with all its work. */
const props = defineProps<{ edition: number; card: Card }>()
const emit = defineEmits<{ close: [] }>()

const router = useRouter()
const stop = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/stop-following')
const asked = computed(() => ({ section: props.card.id, version: props.card.version }))
const reach = useReach(asked, (request, signal) => stop.preview(request, signal))
const send = () =>
  stop.run(asked.value).then(
    () => {
      emit('close')
      return router.push({ name: 'sections', params: { edition: props.edition } })
    },
    () => undefined,
  )
</script>

<template>
  <CommandPanel
    label="The section stops following"
    :problem="stop.problem.value"
    :reach="reach"
    :meant="`Have ${card.name} stop following`"
    :disabled="stop.busy.value"
    @submit="send"
    @close="emit('close')"
  />
</template>
