<script setup lang="ts">
import { computed, onMounted, toRef, useTemplateRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import ProblemNote from '../../parts/ProblemNote.vue'
import { useHistory } from '../../parts/useHistory'
import { useRename } from './useRename'

const props = defineProps<{
  item: Schemas['OutlineItem']
  edition: number
  sections: number
}>()
const emit = defineEmits<{ close: [] }>()

const rename = useRename(toRef(props, 'edition'), toRef(props, 'item'))
const { title, changed, reach, conflict, theirs, busy, problem } = rename
const now = computed(() => ({
  title: conflict.value?.theirs ?? props.item.title,
  version: conflict.value?.version ?? props.item.version,
}))
const inSections = computed(() =>
  props.sections === 0
    ? 'Rename'
    : props.sections === 1
      ? 'Rename in its section'
      : `Rename in all ${props.sections} sections`,
)
const fieldError = computed(() => (problem.value?.field === 'title' ? [problem.value.title] : []))
const otherProblem = computed(() => (problem.value && !problem.value.field && !conflict.value ? problem.value : null))
const { changes } = useHistory(computed(() => ({ edition: props.edition })))
const writer = computed(() => {
  const latest = changes.value.find((change) => change.items.includes(props.item.id))
  return !latest ? 'somebody' : latest.mine ? 'you, on another page,' : latest.author
})
const meanwhile = computed(() => {
  if (conflict.value)
    return {
      status: 409,
      code: 'changed-meanwhile',
      title: `${conflict.value.by ?? 'Somebody'} changed this in the meantime, ${conflict.value.at?.words ?? 'just now'}: “${now.value.title}”`,
      detail: 'Nothing was overwritten. What you wrote is still in the field.',
    }
  if (theirs.value !== null)
    return {
      status: 409,
      code: 'changed-meanwhile',
      title: `While you were writing, ${writer.value} changed this to “${theirs.value}”`,
      detail: 'What you wrote is still in the field.',
    }
  return null
})

// Wherever in a long panel it comes to stand.
const form = useTemplateRef<HTMLElement>('form')
onMounted(() => form.value?.querySelector('input')?.focus())

async function submit(send: () => Promise<boolean>): Promise<void> {
  if (busy.value) return
  if (!changed.value || (await send())) emit('close')
}
</script>

<template>
  <form
    ref="form"
    class="title-form"
    novalidate
    @submit.prevent="submit(rename.send)"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <label class="field-name" :for="`title-${item.id}`">Title</label>
    <v-text-field
      :id="`title-${item.id}`"
      v-model="title"
      class="large"
      autofocus
      maxlength="200"
      autocomplete="off"
      :error-messages="fieldError"
    />
    <ProblemNote v-if="meanwhile" :problem="meanwhile">
      <v-btn @click="rename.keepTheirs(now)">Keep theirs</v-btn>
      <v-btn class="meant" :disabled="busy" @click="submit(() => rename.useMine(now))">Use mine</v-btn>
    </ProblemNote>
    <template v-else>
      <ProblemNote v-if="otherProblem" :problem="otherProblem" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="busy || !changed">{{ busy ? 'Renaming …' : inSections }}</v-btn>
        <v-btn @click="emit('close')">Leave it as it is</v-btn>
        <span class="small" role="status">{{ changed ? reach : 'The code stays; only the title changes.' }}</span>
      </p>
    </template>
  </form>
</template>

<style scoped>
.title-form {
  display: grid;
  gap: var(--space-2);
}
.title-form > :deep(.v-input),
.title-form > :deep(.problem) {
  max-width: 620px;
}
.title-form > :deep(.problem) {
  margin-top: var(--space-6);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
  padding-top: var(--space-5);
}
</style>
