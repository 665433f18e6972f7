<script setup lang="ts">
import PageHead from './PageHead.vue'

/** What stands around a student's screens: who they are, and nothing else. */
</script>

<template>
  <div class="page">
    <PageHead />
    <router-view />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto 1fr;
  /* Whatever stands anywhere in it, seen or only said, never makes the page itself scroll away. */
  position: relative;
  height: 100dvh;
  padding: 0 var(--space-8);
  overflow: clip;
}
@media (max-width: 700px) {
  .page {
    padding: 0 var(--space-6);
  }
}
</style>
