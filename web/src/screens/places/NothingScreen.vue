<script setup lang="ts">
import PlainPage from '../../parts/PlainPage.vue'
</script>

<template>
  <PlainPage>
    <section>
      <h1>There is nothing here</h1>
      <p class="second">This address leads nowhere, or to something you cannot see.</p>
      <p><router-link :to="{ name: 'places' }">Go to your courses</router-link></p>
    </section>
  </PlainPage>
</template>

<style scoped>
section {
  display: grid;
  gap: var(--space-5);
}
</style>
