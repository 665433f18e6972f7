<script setup lang="ts">
/** How many of those an item is for have handed it in, section by section. */
defineProps<{ counts: { letter: string; name: string; done: number; of: number }[] }>()
</script>

<template>
  <span class="counts small">
    <span v-for="one in counts" :key="one.letter" :title="`${one.name}: ${one.done} of ${one.of} have handed in`">
      <span v-if="one.of > 0" class="bar" :style="{ '--share': one.done / one.of }" aria-hidden="true"></span>
      <template v-if="one.of > 0">{{ one.done }} of {{ one.of }}</template>
    </span>
  </span>
</template>

<style scoped>
.counts {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: var(--space-5);
}
.bar {
  display: inline-block;
  width: 56px;
  height: 6px;
  margin-right: var(--space-3);
  background: linear-gradient(to right, var(--ink) calc(100% * var(--share)), var(--hair) 0);
}
</style>
