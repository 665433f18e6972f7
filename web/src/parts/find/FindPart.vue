<script setup lang="ts">
import { ref } from 'vue'
import { useScreenKeys } from '../../foundation/useKeys'
import FindSheet from './FindSheet.vue'

/** Finds an item, a student, a section, a screen or something to do, and goes there. The same on every screen. */
defineProps<{ edition: number }>()

const shown = ref(false)

useScreenKeys([{ key: '/', words: 'find anything', run: () => (shown.value = true) }])
</script>

<template>
  <button type="button" class="word-button find" @click="shown = true">find <kbd>/</kbd></button>
  <v-dialog v-model="shown" aria-label="Find" location="top" max-width="640">
    <FindSheet v-if="shown" :edition="edition" @gone="shown = false" />
  </v-dialog>
</template>

<style scoped>
.find {
  color: var(--ink-2);
  text-decoration-color: transparent;
}
kbd {
  font: inherit;
  padding-left: var(--space-2);
}
</style>
