<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import ProblemNote from '../../../parts/ProblemNote.vue'
import TimingFields from '../../../parts/timing/TimingFields.vue'
import { type Anchor, anchorOf, choiceOf } from '../../../parts/timing/timing'

/** When an item opens, is due or closes, in teaching time: what follows for the sections is shown before. */
const props = defineProps<{
  edition: number
  item: Schemas['ItemAnswer']
  field: 'opens' | 'due' | 'closes'
}>()
const emit = defineEmits<{ close: [] }>()

const stored = props.item[props.field].anchor as Anchor | null
const { version, overTheirs } = usePinned(props.item.version)
const choice = ref(choiceOf(stored))
const time = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/time-item')
const anchor = computed(() => anchorOf(choice.value))
const request = computed(() =>
  anchor.value === undefined || JSON.stringify(anchor.value) === JSON.stringify(stored)
    ? null
    : { item: props.item.id, field: props.field, anchor: anchor.value, version: version.value },
)
const reach = useReach(request, time.preview)
const names = { opens: 'Opens', due: 'Is due', closes: 'Closes' }

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(time.problem.value)
  void send()
}

async function send(): Promise<void> {
  if (!request.value) return emit('close')
  await time.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="editor" @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
    <p class="line">
      <span>{{ names[field] }}</span>
      <TimingFields v-model="choice" :name="names[field]" :other="item[field].words" />
    </p>
    <ProblemNote v-if="time.problem.value" :problem="time.problem.value">
      <template v-if="time.problem.value.conflict">
        <p class="second">Now it says: {{ item[field].words ?? 'no time set' }}.</p>
        <v-btn @click="useMine">Use mine instead</v-btn>
      </template>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || time.busy.value">Save</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>
