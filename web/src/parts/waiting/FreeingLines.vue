<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'

/** What giving work back would open, each leading to that work; the first few, and the others when asked for. */
defineProps<{ edition: number; section: number; freeing: readonly Schemas['FreeingWork'][] }>()

const FEW = 2
const viewpoint = useViewpoint()
const all = ref(false)
</script>

<template>
  <ul v-if="freeing.length" class="small" aria-label="What giving work back opens">
    <li v-for="one in all ? freeing : freeing.slice(0, FEW)" :key="one.item">
      <router-link
        :to="{
          name: 'work',
          params: { edition },
          query: { ...viewpoint.query.value, section, item: one.item, student: one.student ?? undefined },
        }"
        >{{ one.words }}</router-link
      >
    </li>
    <li v-if="freeing.length > FEW">
      <button type="button" class="word-button" :aria-expanded="all" @click="all = !all">
        {{ all ? 'show fewer' : `and ${freeing.length - FEW} more like this` }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--space-2);
  list-style: none;
  padding: 0;
}
</style>
