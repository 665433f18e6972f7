<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'
import { rowsOf } from './fileWords'

/** Shows a file where it is listed. */
const props = defineProps<{ file: Schemas['FileAnswer'] }>()

// What reads PDF files comes only with the first of them.
const PdfPages = defineAsyncComponent(() => import('./PdfPages.vue'))

/** How much of a text is shown, in bytes. */
const SHOWN = 64 * 1024
const viewpoint = useViewpoint()
const address = computed(() => props.file.address + (viewpoint.key.value && `?${viewpoint.key.value}`))
const isRead = computed(() => props.file.kind === 'text' || props.file.kind === 'table')
const text = ref<string | null>(null)
const failed = ref(false)
const rows = computed(() => (props.file.kind === 'table' && text.value !== null ? rowsOf(text.value) : null))

watch(
  address,
  async (from) => {
    if (!isRead.value) return
    const part = await fetch(from, { headers: { Range: `bytes=0-${SHOWN - 1}` } }).catch(() => null)
    failed.value = !part?.ok
    text.value = part?.ok ? (await part.text()).replace(/^\uFEFF/, '') : null
  },
  { immediate: true },
)
</script>

<template>
  <div class="view">
    <span v-if="file.kind === 'picture' || file.kind === 'drawing'" class="framed">
      <img :src="address" :alt="file.name" loading="lazy" />
      <slot name="over" :page="null" />
    </span>
    <audio v-else-if="file.kind === 'audio'" :src="address" controls preload="metadata" :aria-label="file.name" />
    <video v-else-if="file.kind === 'video'" :src="address" controls preload="metadata" :aria-label="file.name" />
    <PdfPages v-else-if="file.kind === 'pdf'" :address="address" :name="file.name">
      <template #over="{ page }"><slot name="over" :page="page" /></template>
    </PdfPages>
    <p v-else-if="isRead && failed" class="second">It can’t be shown just now. Save the file to read it.</p>
    <p v-else-if="isRead && text === null" class="second" role="status">Reading …</p>
    <div v-else-if="rows" class="scroll" tabindex="0" role="group" :aria-label="file.name">
      <table>
        <thead>
          <tr>
            <th v-for="(cell, n) in rows[0]" :key="n" scope="col">{{ cell }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, n) in rows.slice(1)" :key="n">
            <td v-for="(cell, m) in row" :key="m">{{ cell }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <pre v-else-if="text !== null" class="scroll" tabindex="0" role="group" :aria-label="file.name">{{ text }}</pre>
    <p v-if="isRead && file.size > SHOWN" class="small second">
      Only the beginning is shown. Save the file to read all of it.
    </p>
  </div>
</template>

<style scoped>
.view {
  display: grid;
  gap: var(--space-3);
}
img,
video {
  max-width: min(100%, 560px);
  max-height: 420px;
  justify-self: start;
  background: var(--sheet);
}
.framed {
  position: relative;
  justify-self: start;
  display: grid;
}
audio {
  width: min(100%, 420px);
}
.scroll {
  max-height: 320px;
  overflow: auto;
  border-left: var(--stroke-hair) solid var(--hair);
  padding-left: var(--space-5);
}
pre {
  margin: 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  font: inherit;
  max-width: 72ch;
}
table {
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
}
th,
td {
  text-align: left;
  padding: var(--space-2) var(--space-6) var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
  white-space: nowrap;
}
th {
  font-weight: 600;
}
</style>
