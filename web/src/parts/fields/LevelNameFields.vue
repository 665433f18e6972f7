<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'
import { plainLevels } from '../../foundation/levels'
import WordField from './WordField.vue'

/** What a course calls its three levels: a word for one and a word for several of each. */
const names = defineModel<Schemas['LevelNames']>({ required: true })
const levels = ['unit', 'lesson', 'item'] as const
const numbers = ['one', 'many'] as const
</script>

<template>
  <span v-for="level in levels" :key="level" class="level">
    <WordField
      v-for="number in numbers"
      :key="number"
      v-model="names[level][number]"
      :maxlength="24"
      :label="`${number === 'one' ? 'One' : 'Several'} ${plainLevels[level][number]}`"
    />
  </span>
</template>

<style scoped>
.level {
  display: inline-flex;
  gap: var(--space-2);
}
.level .v-input {
  width: 9em;
}
</style>
