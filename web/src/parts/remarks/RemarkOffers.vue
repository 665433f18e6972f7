<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Made, offersOf } from './remarks'

/** Remarks made before that fit what is being typed, below the field: taken with the mouse, or with ↓ and Enter. */
const props = defineProps<{ id: string; typed: string; made: Made[] }>()
const emit = defineEmits<{ take: [text: string] }>()
const offers = computed(() => offersOf(props.made, props.typed))
/** The one that is chosen by keys; -1: none. */
const at = defineModel<number>('at', { default: -1 })
const isClosed = ref(false)
watch(
  () => props.typed,
  () => {
    at.value = -1
    isClosed.value = false
  },
)

/** Whether a key pressed in the field was meant for what is offered. */
function pressed(event: KeyboardEvent): boolean {
  const many = isClosed.value ? 0 : offers.value.length
  const field = event.target as HTMLTextAreaElement
  const isAtEnd = field.selectionStart === field.value.length
  if (!many || event.altKey || event.ctrlKey) return false
  if (event.key === 'ArrowDown' && (isAtEnd || at.value >= 0)) at.value = Math.min(at.value + 1, many - 1)
  else if (event.key === 'ArrowUp' && at.value >= 0) at.value--
  else if (event.key === 'Enter' && at.value >= 0) emit('take', offers.value[at.value]!)
  else if (event.key === 'Escape' && at.value >= 0) {
    at.value = -1
    isClosed.value = true
  } else return false
  event.preventDefault()
  event.stopPropagation()
  return true
}
defineExpose({ pressed })
</script>

<template>
  <ul v-if="offers.length && !isClosed" :id="id" class="offers" role="listbox" aria-label="Remarks you made before">
    <li
      v-for="(text, n) in offers"
      :id="`${id}-${n}`"
      :key="text"
      role="option"
      :aria-selected="n === at"
      :title="text"
      @mousedown.prevent
      @click="emit('take', text)"
    >
      {{ text }}
    </li>
  </ul>
</template>

<style scoped>
.offers {
  list-style: none;
  padding: 0;
  border-left: var(--stroke-hair) solid var(--hair);
}
li {
  padding: var(--space-2) var(--space-4);
  color: var(--ink-2);
  font-size: var(--size-small);
  cursor: pointer;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
}
li:hover,
[aria-selected='true'] {
  color: var(--ink);
  background: var(--paper);
}
</style>
