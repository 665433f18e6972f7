<script setup lang="ts">
import type { Problem } from '../../../foundation/api/client'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** Under what is to open: what is wrong, the button that sets all of it, and what that would do. */
defineProps<{ problem: Problem | null; ready: boolean; reach: string }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <ProblemNote v-if="problem" :problem="problem" />
  <p class="ways">
    <v-btn type="submit" class="meant" :disabled="!ready">Set what it opens</v-btn>
    <v-btn @click="emit('close')">Leave it as it is</v-btn>
    <span class="small" role="status">{{ reach }}</span>
  </p>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
