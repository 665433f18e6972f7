<script setup lang="ts">
import { computed } from 'vue'
import { stretchesOf } from './stretches'

/** A text beside the one before it: what came is underlined, what went is struck out. */
const props = defineProps<{ before: string; now: string }>()
const stretches = computed(() => stretchesOf(props.before, props.now))
</script>

<template>
  <p class="written">
    <component :is="{ added: 'ins', removed: 'del', same: 'span' }[one.how]" v-for="(one, n) in stretches" :key="n">{{
      one.text
    }}</component>
  </p>
</template>

<style scoped>
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-width: 68ch;
  margin: 0;
}
ins {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
  font-weight: 600;
}
del {
  color: var(--ink-2);
}
</style>
