<script setup lang="ts">
import type { Schemas } from '../../../foundation/api/client'

/** A colleague reads the piece: one can leave it to them, or read it all the same. */
defineProps<{ reader: Schemas['PieceReader'] }>()
defineEmits<{ takeOver: [] }>()
</script>

<template>
  <p role="status">
    {{ reader.name }} is reading this piece, as of {{ reader.since.words }}.
    <button type="button" class="word-button" @click="$emit('takeOver')">read it all the same</button>
  </p>
</template>
