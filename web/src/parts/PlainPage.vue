<script setup lang="ts">
import PageHead from './shell/PageHead.vue'

/** A page that belongs to no course: the head, a line, and what stands below it. */
</script>

<template>
  <div class="page">
    <PageHead />
    <main><slot /></main>
  </div>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
  padding: 0 var(--space-8);
}
main {
  display: grid;
  align-content: start;
  gap: var(--space-10);
  border-top: var(--stroke-hair) solid var(--ink);
  padding: var(--space-8) 0;
}
main :deep(h1) {
  font: 600 var(--size-title) / 1.2 var(--face-display);
  padding-bottom: var(--space-5);
}
</style>
