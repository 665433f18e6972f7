<script setup lang="ts">
/** A line of text. Its name stands above it, or in the sentence it is part of. */
defineProps<{ label: string; named?: boolean; maxlength?: number; placeholder?: string; disabled?: boolean }>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <label v-if="named" class="named"
    ><span class="field-name">{{ label }}</span>
    <v-text-field
      v-model="text"
      autocomplete="off"
      :maxlength="maxlength ?? 200"
      :placeholder="placeholder"
      :disabled="disabled"
  /></label>
  <v-text-field
    v-else
    v-model="text"
    autocomplete="off"
    :aria-label="label"
    :maxlength="maxlength ?? 200"
    :placeholder="placeholder"
    :disabled="disabled"
  />
</template>

<style scoped>
.named {
  display: grid;
}
</style>
