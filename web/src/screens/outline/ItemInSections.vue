<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import WhyDates from '../../parts/why/WhyDates.vue'
import FollowsTable from './FollowsTable.vue'

/** When an item opens and is due in each section, and why then. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()

const rows = computed(() =>
  props.item.sections.map(({ section, letter, name, opens, due, differs }) => ({
    id: section,
    letter,
    name,
    cells: [opens?.words ?? '–', due?.words ?? '–'],
    differs,
  })),
)
const why = ref<number | null>(null)
</script>

<template>
  <div class="sections">
    <FollowsTable :heads="['opens', 'due']" :rows="rows" :why="why" @why="why = why === $event ? null : $event" />
    <WhyDates v-if="why !== null" :key="why" :edition="edition" :item="item.id" :section="why" />
  </div>
</template>

<style scoped>
.sections {
  display: grid;
  gap: var(--space-4);
  align-content: start;
}
</style>
