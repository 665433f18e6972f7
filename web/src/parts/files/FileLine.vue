<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'
import FileView from './FileView.vue'

/** A file as a line: its name, what it is, and a way to show it and to save it. */
const props = defineProps<{ file: Schemas['FileAnswer']; shown?: boolean }>()

const viewpoint = useViewpoint()
// What reads PDF files is large, and is fetched only when somebody asks.
const open = ref(props.shown && props.file.kind !== 'pdf')
const canShow = computed(() => props.file.kind !== 'other')
const save = computed(
  () => `${props.file.address}?${new URLSearchParams({ ...viewpoint.query.value, save: 'true' }).toString()}`,
)
const kinds: Record<string, string> = {
  picture: 'picture',
  drawing: 'drawing',
  pdf: 'PDF',
  text: 'text',
  table: 'table',
  audio: 'sound',
  video: 'film',
  other: 'file',
}
</script>

<template>
  <div class="file">
    <p class="line">
      <b class="name">{{ file.name }}</b>
      <span class="small second">{{ kinds[file.kind] ?? file.kind }}, {{ file.sizeInWords }}</span>
      <button
        v-if="canShow"
        type="button"
        class="word-button small"
        :aria-expanded="open"
        :aria-label="`${open ? 'Hide' : 'Show'} ${file.name}`"
        @click="open = !open"
      >
        {{ open ? 'hide' : 'show' }}
      </button>
      <a :href="save" download class="small" :aria-label="`Save ${file.name}`">save</a>
      <slot />
    </p>
    <FileView v-if="open && canShow" :file="file">
      <template #over="{ page }"><slot name="over" :page="page" /></template>
    </FileView>
  </div>
</template>

<style scoped>
.file {
  display: grid;
  gap: var(--space-3);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.name {
  overflow-wrap: anywhere;
}
</style>
