<script setup lang="ts">
import { computed } from 'vue'

/** The states of an item, told apart by shape and word first. */
export type ItemState =
  'open' | 'upcoming' | 'locked' | 'kept-back' | 'overdue' | 'closed' | 'unpublished' | 'not-needed' | 'differs'

const props = defineProps<{ state: ItemState; alone?: boolean }>()

const words: Record<ItemState, string> = {
  open: 'open',
  upcoming: 'to come',
  locked: 'locked',
  'kept-back': 'kept back',
  overdue: 'overdue',
  closed: 'closed',
  unpublished: 'unpublished',
  'not-needed': 'not needed here',
  differs: 'differs',
}
const word = computed(() => words[props.state])
</script>

<template>
  <svg
    class="mark"
    width="18"
    height="12"
    viewBox="0 0 18 12"
    fill="none"
    stroke="currentColor"
    stroke-width="1.5"
    :role="alone ? 'img' : undefined"
    :aria-label="alone ? word : undefined"
    :aria-hidden="alone ? undefined : true"
  >
    <circle v-if="state === 'open'" cx="6" cy="6" r="4.5" fill="currentColor" />
    <circle v-else-if="state === 'upcoming'" cx="6" cy="6" r="4.5" />
    <template v-else-if="state === 'locked'">
      <circle cx="6" cy="6" r="4.5" />
      <path d="M14 .5v11" />
    </template>
    <template v-else-if="state === 'kept-back'">
      <circle cx="6" cy="6" r="4.5" />
      <path d="M17 .8h-3.5v10.4H17" />
    </template>
    <template v-else-if="state === 'overdue'">
      <path d="M2 .5v11" />
      <path d="M2 6h5" />
      <circle cx="11" cy="6" r="4" fill="currentColor" />
    </template>
    <template v-else-if="state === 'closed'">
      <path d="M1.5 6a4.5 4.5 0 0 1 9 0z" fill="currentColor" />
      <path d="M1.5 6a4.5 4.5 0 0 0 9 0z" />
    </template>
    <circle v-else-if="state === 'unpublished'" cx="6" cy="6" r="4.5" stroke-dasharray="2 2.2" />
    <template v-else-if="state === 'not-needed'">
      <circle cx="6" cy="6" r="4.5" />
      <path d="M1 11L11 1" />
    </template>
    <path v-else d="M1.5 10.5h9L6 1.5z" />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: -1px;
}
</style>
