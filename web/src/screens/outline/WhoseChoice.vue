<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'

/** Whose something new is to be: the course's, and so every section's, or one section's only. */
const owner = defineModel<number | null>({ required: true })
defineProps<{ sections: Schemas['OutlineSection'][] }>()
</script>

<template>
  <select v-if="sections.length > 0" v-model="owner" aria-label="Whose it is to be">
    <option :value="null">in the course</option>
    <option v-for="section in sections" :key="section.id" :value="section.id">only in {{ section.name }}</option>
  </select>
</template>
