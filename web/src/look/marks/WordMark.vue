<script setup lang="ts">
/** The name, with the line it is called after. */
defineProps<{ large?: boolean }>()
</script>

<template>
  <span class="word-mark" :class="{ large }">
    <svg :width="large ? 52 : 24" :height="large ? 36 : 17" viewBox="0 0 24 17" aria-hidden="true">
      <path d="M1 15L8 10L13 12L23 2" fill="none" stroke="var(--accent)" stroke-width="2.4" />
    </svg>
    Polycline
  </span>
</template>

<style scoped>
.word-mark {
  white-space: nowrap;
  font: 600 var(--size-mark) / 1.3 var(--face-display);
}
svg {
  margin-right: var(--space-4);
  vertical-align: -2px;
}
.large svg {
  margin-right: var(--space-6);
  vertical-align: -3px;
}
.large {
  font-size: var(--size-cover);
}
</style>
