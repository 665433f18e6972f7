<script setup lang="ts">
import { onBeforeUnmount, onMounted, useTemplateRef } from 'vue'
import type { Problem } from '../foundation/api/client'
import ProblemNote from './ProblemNote.vue'

/**
 * What is about to be changed, under the screen it is on: its parts as lines, what it would do, and the words that do it.
 * Pressing Enter in a field does what is meant; Escape leaves everything as it is.
 */
withDefaults(
  defineProps<{
    label: string
    problem: Problem | null
    reach: string
    meant: string
    disabled: boolean
    /** What closes it: of something new, nothing is left as it is. */
    leave?: string
  }>(),
  { leave: 'Leave it as it is' },
)
const emit = defineEmits<{ submit: []; close: [] }>()

const panel = useTemplateRef<HTMLElement>('panel')
/** Where the keys were: they go back there. */
const before = document.activeElement
onMounted(() => panel.value?.querySelector<HTMLElement>('[autofocus]')?.focus())
onBeforeUnmount(() => {
  if (before instanceof HTMLElement && before.isConnected && panel.value?.contains(document.activeElement))
    before.focus()
})
</script>

<template>
  <aside ref="panel" class="panel" :aria-label="label" @keydown.esc.stop.prevent="emit('close')">
    <form novalidate @submit.prevent="disabled || emit('submit')">
      <slot />
      <ProblemNote v-if="problem" :problem="problem"><slot name="problem" /></ProblemNote>
      <p class="line">
        <v-btn type="submit" class="meant" :disabled="disabled">{{ meant }}</v-btn>
        <slot name="more" />
        <v-btn @click="emit('close')">{{ leave }}</v-btn>
        <span class="small reach" role="status">{{ reach }}</span>
      </p>
    </form>
  </aside>
</template>

<style scoped>
.panel {
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
form {
  display: grid;
  gap: var(--space-4);
}
.line,
:slotted(.line) {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.reach {
  max-width: 720px;
}
</style>
