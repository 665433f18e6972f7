<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'

/** What colleagues changed since one last looked. */
defineProps<{ changes: Schemas['TodayAnswer']['changed']; canChange: boolean }>()
const emit = defineEmits<{ seen: [] }>()
</script>

<template>
  <section aria-label="What others changed">
    <p class="ruled-head small line">
      Changed by others since you last looked
      <button v-if="canChange" type="button" class="word-button" @click="emit('seen')">I have seen it</button>
    </p>
    <ul>
      <li v-for="change in changes.slice(0, 6)" :key="change.batch">
        <span class="when">{{ change.at.words }}</span> {{ change.author }} {{ change.words }}
      </li>
    </ul>
    <p v-if="changes.length > 6" class="small">and {{ changes.length - 6 }} more, in all changes below</p>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
}
.when {
  display: inline-block;
  width: 128px;
  color: var(--ink-2);
}
</style>
