<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import { placeOf } from '../../parts/why/mends'

/** What was noticed, each with where it is mended; the first few, and the others when asked for. */
const props = defineProps<{ checks: Schemas['TodayCheck'][]; edition: number }>()

const FEW = 3
const route = useRoute()
const all = ref(false)
/** What has one remedy stands together under the first of it. */
const groups = computed(() => {
  const found = new Map<string, Schemas['TodayCheck'][]>()
  for (const check of props.checks) {
    const { words, screen, section, row } = check.mend
    const key = `${words} ${screen} ${section} ${screen === 'one-student' ? row : ''}`
    found.set(key, [...(found.get(key) ?? []), check])
  }
  return [...found.values()].map(([first, ...others]) => ({ ...first!, others }))
})
const shown = computed(() => (all.value ? groups.value : groups.value.slice(0, FEW)))
</script>

<template>
  <ul v-if="checks.length > 0">
    <li v-for="(check, n) in shown" :key="n" class="check">
      {{ check.words }}
      <span v-if="check.others.length" class="small" :title="check.others.map((one) => one.words).join('\n')"
        >and {{ check.others.length }} more like this</span
      >{{ ' ' }}
      <router-link
        v-if="placeOf(check.mend, edition, route.query)"
        :to="placeOf(check.mend, edition, route.query)!"
        class="small"
        >{{ check.mend.words }}</router-link
      >
      <span v-else class="small">{{ check.mend.words }}</span>
    </li>
  </ul>
  <p v-if="groups.length > FEW" class="small">
    <button type="button" class="word-button" :aria-expanded="all" @click="all = !all">
      {{ all ? 'show fewer' : `and ${groups.length - FEW} more to check` }}
    </button>
  </p>
</template>

<style scoped>
ul {
  display: grid;
  gap: var(--space-3);
}
.check {
  padding-left: var(--space-6);
  text-indent: calc(-1 * var(--space-6));
}
.check::before {
  content: '– ';
  color: var(--accent);
}
</style>
