<script setup lang="ts">
import PlainPage from '../../parts/PlainPage.vue'
</script>

<template>
  <PlainPage>
    <section>
      <h1>There is nothing here</h1>
      <p class="second">The address leads nowhere, or to something that is not for you to see.</p>
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
