<script setup lang="ts">
/** A file of lines, read into a field beside it, where they can be put right. */
const props = withDefaults(defineProps<{ label: string; most?: number }>(), { most: 100_000 })
const emit = defineEmits<{ read: [text: string] }>()

async function read(files: File | File[] | null): Promise<void> {
  const file = Array.isArray(files) ? files[0] : files
  if (file) emit('read', (await file.slice(0, 4 * props.most).text()).replace(/^\uFEFF/, '').slice(0, props.most))
}
</script>

<template>
  <v-file-input
    :aria-label="label"
    placeholder="or choose a file"
    accept=".csv,.tsv,.txt,text/csv,text/plain"
    @update:model-value="read"
  />
</template>
