<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { placeOf } from './mends'
import { checkWords, useChecks } from './useChecks'

/** What was noticed of a unit, lesson or item, each with where it is mended. */
const props = defineProps<{
  edition: number
  /** Such as `item-12`. */
  row: string
}>()

const route = useRoute()
const checksOf = useChecks(() => props.edition)
const checks = computed(() => checksOf(props.row))
</script>

<template>
  <ul v-if="checks.length" class="checks" aria-label="To check">
    <li v-for="(check, n) in checks" :key="n">
      {{ checkWords(check) }}{{ ' ' }}
      <router-link
        v-if="placeOf(check.mend, edition, route.query)"
        :to="placeOf(check.mend, edition, route.query)!"
        class="small"
        >{{ check.mend.words }}</router-link
      >
      <span v-else class="small">{{ check.mend.words }}</span>
    </li>
  </ul>
</template>

<style scoped>
.checks {
  display: grid;
  gap: var(--space-2);
  list-style: none;
  padding: 0 0 0 var(--space-4);
  border-left: var(--stroke-strong) solid var(--accent);
}
</style>
