<script setup lang="ts">
import { useViewpoint } from '../../foundation/useViewpoint'

/** Leads to why an item is open to a student, or not. */
defineProps<{ edition: number; student: number; item: number; name: string }>()

const viewpoint = useViewpoint()
</script>

<template>
  <router-link
    data-why
    :to="{
      name: 'one-student',
      params: { edition, student },
      query: { ...viewpoint.query.value, why: item },
    }"
    :aria-label="`why: ${name}`"
    >why</router-link
  >
</template>
