<script setup lang="ts">
/** What the days of the year sheet look like, and how they are marked. */
defineProps<{ canChange: boolean }>()
</script>

<template>
  <p class="small legend">
    <span class="box closed" aria-hidden="true"></span> closed <span class="box free" aria-hidden="true"></span> no
    classes on that weekday <span class="box extra" aria-hidden="true"></span> extra day
    <span class="box special" aria-hidden="true"></span> special day
    <template v-if="canChange">
      · drag over days to mark them, or move with the arrows, select more with Shift, and press Enter</template
    >
  </p>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-3);
  padding: var(--space-4) 0 var(--space-8);
}
.box {
  width: var(--space-7);
  height: var(--space-6);
  margin-left: var(--space-5);
  border: var(--stroke-hair) solid var(--hair);
}
.box.closed {
  margin-left: 0;
  background: repeating-linear-gradient(45deg, transparent 0 4px, var(--line) 4px 5px);
}
.box.free {
  background: var(--faint-hair);
}
.box.extra {
  border: var(--stroke-strong) solid var(--ink);
}
.box.special {
  border-bottom: var(--space-2) solid var(--ink);
}
</style>
