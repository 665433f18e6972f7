<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import CommandPanel from '../../parts/CommandPanel.vue'

/** What holds for the course as a whole: its numbers, and what is seen of items before they open. */
const props = defineProps<{ edition: number; settings: Schemas['OutlineSettings'] }>()
const emit = defineEmits<{ close: [] }>()

const codes = ref(props.settings.codes)
const before = ref(props.settings.before)
const version = props.settings.version
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-course')
const request = computed(() =>
  codes.value === props.settings.codes && before.value === props.settings.before
    ? null
    : { codes: codes.value, before: before.value, version },
)
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
    label="The course"
    :problem="change.problem.value"
    :reach="reach"
    meant="Have the course so"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>Before it opens an item is</span>
      <label><input v-model="before" type="radio" value="listed" autofocus />listed: title and date</label>
      <label><input v-model="before" type="radio" value="unseen" />unseen</label>
      <span class="second">where it and its unit say nothing else</span>
    </p>
    <p class="line">
      <span>Items are numbered</span>
      <label><input v-model="codes" type="radio" value="by-unit" :disabled="settings.codesFixed" />by unit, 3.07</label>
      <label
        ><input v-model="codes" type="radio" value="straight" :disabled="settings.codesFixed" />straight through,
        #041</label
      >
      <span v-if="settings.codesFixed" class="second">
        Students have seen the codes: they stay until the next edition.
      </span>
    </p>
  </CommandPanel>
</template>
