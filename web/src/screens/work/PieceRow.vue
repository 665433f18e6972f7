<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { lain, standing } from './workOrder'

/** A piece as the list has it: whose it is, of what, what is not as usual with it, and how long it has waited. */
defineProps<{ piece: Schemas['WorkPiece']; current: boolean }>()
defineEmits<{ read: [] }>()
</script>

<template>
  <button type="button" :aria-current="current ? 'true' : undefined" @click="$emit('read')">
    <span class="who">{{ piece.name }}</span>
    <span class="small" :title="piece.title"
      >{{ piece.code }} <span class="said-only">{{ piece.title }}</span></span
    >
    <span class="small" :class="{ accent: standing(piece).isAccent }">{{ standing(piece).words }}</span>
    <span class="small lain" :title="piece.handedInAt.words">{{ lain(piece.days) }}</span>
  </button>
</template>

<style scoped>
button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 44px 96px 44px;
  align-items: baseline;
  gap: var(--space-3);
  width: 100%;
  padding: var(--space-3) var(--space-4);
  border-left: var(--stroke-strong) solid transparent;
}
[aria-current] {
  background: var(--sheet);
  border-color: var(--accent);
}
.who {
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.lain {
  text-align: right;
}
</style>
