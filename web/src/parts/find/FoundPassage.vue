<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'

/** The passage in which something was found, the words that were sought made out. */
defineProps<{ hit: Schemas['SearchHit'] }>()
</script>

<template>
  <span class="small second">
    <template v-if="hit.file">in {{ hit.file }}: </template>
    <template v-for="(piece, n) in hit.passage" :key="n"
      ><mark v-if="piece.isSought">{{ piece.text }}</mark
      ><template v-else>{{ piece.text }}</template></template
    >
  </span>
</template>

<style scoped>
mark {
  color: var(--ink);
  background: none;
  font-weight: 650;
}
</style>
