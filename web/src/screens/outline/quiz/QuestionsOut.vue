<script setup lang="ts">
import { ref } from 'vue'

/** The questions as a package for other programs, with what has no place there said before. */
defineProps<{ edition: number; item: number; leftOut: readonly string[] }>()

const isOpen = ref(false)
</script>

<template>
  <button type="button" class="word-button" :aria-expanded="isOpen" @click="isOpen = !isOpen">save as QTI</button>
  <div v-if="isOpen" class="out">
    <p v-if="leftOut.length === 0">Everything in this quiz fits into a QTI 2.2 package.</p>
    <template v-else>
      <p>In a QTI 2.2 package:</p>
      <ul>
        <li v-for="words in leftOut" :key="words">{{ words }}</li>
      </ul>
    </template>
    <p>
      <a :href="`/api/editions/${edition}/items/${item}/questions.zip`" download="questions.zip">Save the package</a>
    </p>
  </div>
</template>

<style scoped>
.out {
  display: grid;
  gap: var(--space-3);
  flex-basis: 100%;
}
.out ul {
  list-style: disc;
  padding-left: var(--space-6);
}
</style>
