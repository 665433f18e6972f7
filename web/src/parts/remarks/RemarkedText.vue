<script setup lang="ts">
import { computed } from 'vue'
import { type Remark, onText, stretchesOf } from './remarks'

/** A text with what remarks are about underlined. */
const props = defineProps<{
  text: string
  remarks: Remark[]
  /** Which entry of a log it is; null: none. */
  entry?: number | null
  /** The remark one is at. */
  current?: number | null
}>()
const stretches = computed(() => stretchesOf(props.text, onText(props.remarks, props.entry ?? null)))
</script>

<template>
  <span :data-text="entry ?? ''">
    <template v-for="(one, at) in stretches" :key="at">
      <mark
        v-if="one.of.length"
        :data-remark="one.of.join(' ')"
        :class="{ current: current != null && one.of.includes(current) }"
        v-text="one.text"
      />
      <span v-else v-text="one.text" />
    </template>
  </span>
</template>

<style scoped>
mark {
  background: none;
  color: inherit;
  border-bottom: var(--stroke-hair) solid var(--accent);
}
mark.current {
  border-bottom-width: var(--stroke-strong);
}
</style>
