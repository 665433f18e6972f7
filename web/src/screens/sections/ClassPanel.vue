<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useReach } from '../../foundation/commands/useReach'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { type Wanted, changeOf } from './classes'
import DateField from '../../parts/fields/DateField.vue'
import TimeField from '../../parts/fields/TimeField.vue'

/** A class is moved or added: the dates that move stand there before it is done. */
const props = defineProps<{ edition: number; section: Schemas['PaceSection']; wanted: Wanted }>()
const emit = defineEmits<{ close: [] }>()

const date = ref(props.wanted.of?.date ?? '')
const start = ref(props.wanted.of?.start ?? '08:40')
const end = ref(props.wanted.of?.end ?? '09:30')
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-classes')
const request = computed(() => {
  const asked = changeOf(props.wanted, { date: date.value, start: start.value, end: end.value })
  return asked && { section: props.section.id, change: asked, putBack: null, version: 0 }
})
const reach = useReach(request, change.preview)
const words = computed(() => (props.wanted.what === 'move' ? 'Move the class' : 'Add this class'))

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
    label="One class"
    :problem="change.problem.value"
    :reach="reach"
    :meant="words"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <SectionKey :letter="section.letter" :name="section.name" />
      <span v-if="wanted.what !== 'add' && wanted.of"
        ><b>class {{ wanted.of.ordinal }}, {{ wanted.of.words }}</b
        >{{ wanted.of.lesson ? `: ${wanted.of.lesson}` : '' }}</span
      >
      <span>{{ wanted.what === 'add' ? 'another class on' : 'to' }}</span>
      <DateField v-model="date" label="Date" :class-days="section.classes.map((one) => one.date)" />
      <TimeField v-model="start" label="Start" />
      <span>to</span>
      <TimeField v-model="end" label="End" />
    </p>
  </CommandPanel>
</template>
