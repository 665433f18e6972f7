<script setup lang="ts">
import type { MadeLink } from './usePeople'

import { computed } from 'vue'

/** What was done, and the links that came of it: each is shown only now. */
const props = defineProps<{ words: string; links: MadeLink[] }>()

/** All of them as a table, for a letter to each or a slip of paper. */
const table = computed(() => {
  const quoted = (text: string) => `"${text.replaceAll('"', '""')}"`
  const rows = props.links.map(({ name, email, address }) => [name, email, address].map(quoted).join(','))
  return `data:text/csv;charset=utf-8,${encodeURIComponent(['name,email,link', ...rows].join('\r\n'))}`
})
</script>

<template>
  <div class="said" role="status">
    <p>{{ words }}</p>
    <template v-if="links.length">
      <p class="small">
        {{
          links.length === 1
            ? 'Pass this link on. It is shown only now, and works once, for a day.'
            : 'Pass these links on. They are shown only now, and each works once, for a day.'
        }}
      </p>
      <a v-if="links.length > 1" class="word-button small" :href="table" download="links.csv">save them as a table</a>
      <ul>
        <li v-for="link in links" :key="link.email">
          <b>{{ link.name }}</b>
          <v-text-field
            :model-value="link.address"
            readonly
            :aria-label="`The link for ${link.name}`"
            @focus="($event.target as HTMLInputElement).select()"
          />
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.said {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-5) var(--space-6);
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
}
ul {
  max-height: 300px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 200px 1fr;
  align-items: baseline;
  gap: var(--space-5);
}
.said :deep(.v-text-field) {
  width: 100%;
}
b {
  font-weight: 600;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
