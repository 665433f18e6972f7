<script setup lang="ts">
import PageHead from '../../parts/PageHead.vue'
</script>

<template>
  <div class="page">
    <PageHead />
    <main>
      <h1>There is nothing here</h1>
      <p class="second">The address leads nowhere, or to something that is not for you to see.</p>
      <p><router-link :to="{ name: 'places' }">Go to your courses</router-link></p>
    </main>
  </div>
</template>

<style scoped>
.page {
  padding: 0 var(--space-8);
}
main {
  border-top: var(--stroke-hair) solid var(--ink);
  padding-top: var(--space-8);
  display: grid;
  gap: var(--space-5);
}
h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
</style>
