<script setup lang="ts">
import WordMark from '../../look/marks/WordMark.vue'

/** A page for somebody who has no account to sign in with yet. */
</script>

<template>
  <main class="page">
    <section>
      <p class="cover"><WordMark large /></p>
      <slot />
    </section>
  </main>
</template>

<style scoped>
.page {
  height: 100dvh;
  overflow: auto;
  padding: 0 var(--space-8) var(--space-9);
}
section {
  display: grid;
  gap: var(--space-7);
  width: min(720px, 100%);
  padding-top: var(--space-10);
  margin: 0 auto;
}
section :deep(h1) {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
section :deep(form) {
  display: grid;
  gap: var(--space-7);
}
section :deep(fieldset) {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: var(--space-6) var(--space-8);
  padding: var(--space-5) 0 0;
  margin: 0;
  border: 0;
  border-top: var(--stroke-hair) solid var(--ink);
}
section :deep(legend) {
  float: left;
  grid-column: 1 / -1;
  padding: 0;
  font-weight: 650;
}
section :deep(form > .v-btn) {
  justify-self: start;
}
@media (max-width: 600px) {
  section :deep(fieldset) {
    grid-template-columns: 1fr;
  }
}
</style>
