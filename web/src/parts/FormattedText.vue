<script setup lang="ts">
/** A text as it is stored: sanitised by the server, of a short list of elements. */
defineProps<{ html: string }>()
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- the server keeps a named list of elements and nothing else -->
  <div class="text" v-html="html"></div>
</template>

<style scoped>
.text {
  max-width: 68ch;
  font-size: var(--size-large);
}
.text :deep(p),
.text :deep(ul),
.text :deep(ol),
.text :deep(blockquote),
.text :deep(pre) {
  padding-bottom: var(--space-5);
}
.text :deep(li p) {
  padding-bottom: var(--space-2);
}
.text :deep(h2),
.text :deep(h3) {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  padding: var(--space-5) 0 var(--space-3);
}
.text :deep(ul) {
  list-style: disc;
  padding-left: var(--space-8);
}
.text :deep(ol) {
  list-style: decimal;
  padding-left: var(--space-8);
}
.text :deep(blockquote) {
  border-left: var(--stroke-strong) solid var(--hair);
  padding-left: var(--space-6);
  margin: 0;
}
</style>
