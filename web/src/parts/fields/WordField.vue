<script setup lang="ts">
/** A line of text in the sentence it is part of. */
defineProps<{ label: string; maxlength?: number; placeholder?: string; disabled?: boolean }>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <v-text-field
    v-model="text"
    autocomplete="off"
    :aria-label="label"
    :maxlength="maxlength ?? 200"
    :placeholder="placeholder"
    :disabled="disabled"
  />
</template>
