<script setup lang="ts">
import { ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import CommandPanel from '../../parts/CommandPanel.vue'
import WordField from '../../parts/fields/WordField.vue'

/** What the school is called: it stands on everybody’s first page, and in its letters. */
const props = defineProps<{ name: string }>()
const emit = defineEmits<{ close: [] }>()
const name = ref(props.name)
const { run, busy, problem } = useSend(
  (body: Schemas['RenameSchoolRequest'], key) =>
    ask(api.POST('/api/school/rename-school', { params: { header: once(key) }, body })),
  [keys.places],
)

async function send(): Promise<void> {
  if (await run({ name: name.value })) emit('close')
}
</script>

<template>
  <CommandPanel
    label="Name of the school"
    :problem="problem"
    reach="It stands on everybody’s first page, and in letters."
    meant="Save the name"
    :disabled="busy || !name.trim() || name.trim() === props.name"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>The school is called</span>
      <WordField v-model="name" class="name" label="Name of the school" autofocus />
    </p>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 300px;
}
</style>
