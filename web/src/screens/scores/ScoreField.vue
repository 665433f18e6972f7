<script setup lang="ts">
import { useTemplateRef } from 'vue'

/** A cell of the table in which a score is written. */
defineProps<{ label: string; text: string; shown: string; isChanged: boolean; isUnread: boolean }>()
const emit = defineEmits<{ write: [text: string]; paste: [text: string]; go: [lines: number] }>()

const field = useTemplateRef<HTMLInputElement>('field')
defineExpose({ focus: () => field.value?.focus() })

function pasted(event: ClipboardEvent): void {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  // One score is pasted like any text; a column or a table goes into the cells that it is meant for.
  if (!/[\t\n\r]/.test(text.trim())) return
  event.preventDefault()
  emit('paste', text)
}
function pressed(event: KeyboardEvent): void {
  const lines = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (lines === undefined || event.ctrlKey) return
  event.preventDefault()
  emit('go', event.key === 'Enter' && event.shiftKey ? -1 : lines)
}
</script>

<template>
  <input
    ref="field"
    type="text"
    inputmode="decimal"
    autocomplete="off"
    maxlength="40"
    :class="{ changed: isChanged, unread: isUnread }"
    :aria-label="label"
    :aria-invalid="isUnread"
    :placeholder="shown"
    :value="text"
    @focus="field?.select()"
    @input="emit('write', ($event.target as HTMLInputElement).value)"
    @paste="pasted"
    @keydown="pressed"
  />
</template>

<style scoped>
input {
  width: 84px;
  padding: 2px var(--space-2);
  border: 0;
  border-bottom: var(--stroke-hair) solid var(--hair);
  background: none;
}
input::placeholder {
  color: var(--ink-2);
  font-size: var(--size-small);
  opacity: 1;
}
input:focus {
  outline: none;
  border-bottom: var(--stroke-strong) solid var(--ink);
  background: var(--sheet);
}
.changed {
  font-weight: 600;
  border-bottom-color: var(--ink);
}
.unread {
  border-bottom-color: var(--accent);
  color: var(--accent);
}
</style>
