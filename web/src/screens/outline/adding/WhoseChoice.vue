<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'

/** Whose something new is to be: the course's, and so every section's, or one section's only. */
const owner = defineModel<number | null>({ required: true })
defineProps<{ sections: Schemas['OutlineSection'][] }>()
</script>

<template>
  <ChoiceField
    v-if="sections.length > 0"
    v-model="owner"
    label="Who gets it"
    :choices="[
      { value: null, title: 'in the course' },
      ...sections.map((section) => ({ value: section.id, title: `only in ${section.name}` })),
    ]"
  />
</template>
