<script setup lang="ts" generic="T">
/** Something that is so or not, or, with a value of its own, one of several that are. */
defineProps<{
  /** What stands beside it; the slot says it otherwise. */
  label?: string
  /** What it adds to a list. */
  value?: T
  disabled?: boolean
  title?: string
}>()
const ticked = defineModel<boolean | T[]>({ required: true })
</script>

<template>
  <v-checkbox v-model="ticked" class="tick" :value="value" :disabled="disabled" :title="title">
    <template #label
      ><slot>{{ label }}</slot></template
    >
  </v-checkbox>
</template>
