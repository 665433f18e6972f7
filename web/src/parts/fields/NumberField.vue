<script setup lang="ts">
import { ref, watch } from 'vue'

/** A number within bounds, in a sentence. What is none, or out of bounds, is said at once. */
const props = defineProps<{
  label: string
  min?: number
  max?: number
  disabled?: boolean
  optional?: boolean
  /** How many decimals it may have; none unless given. */
  decimals?: number
}>()
/** Null where nothing is written, or nothing that will do. */
const number = defineModel<number | null>({ required: true })

const text = ref(number.value === null ? '' : `${number.value}`)
const problem = ref('')
watch(number, (now) => {
  if (now !== null && now !== valueOf(text.value)) text.value = `${now}`
})

const bounds = () =>
  (props.min !== undefined && props.max !== undefined
    ? `a number from ${props.min} to ${props.max}`
    : props.min !== undefined
      ? `a number, ${props.min} or more`
      : 'a number') + (props.decimals ? `, with at most ${props.decimals} decimals` : '')

/** A point and a comma are both taken before decimals. */
function valueOf(written: string): number | null {
  const form = props.decimals ? new RegExp(`^\\d{1,6}([.,]\\d{0,${props.decimals}})?$`) : /^\d{1,6}$/
  return form.test(written.trim()) ? Number(written.replace(',', '.')) : null
}

function read(written: string): void {
  text.value = written
  const value = valueOf(written)
  const fits = value !== null && value >= (props.min ?? 0) && value <= (props.max ?? 999_999)
  problem.value = fits || (props.optional && written.trim() === '') ? '' : `Write ${bounds()}.`
  number.value = fits ? value : null
}
</script>

<template>
  <v-text-field
    class="number"
    :class="{ unread: problem, wide: decimals }"
    :inputmode="decimals ? 'decimal' : 'numeric'"
    autocomplete="off"
    :model-value="text"
    :aria-label="label"
    :disabled="disabled"
    :error-messages="problem"
    @update:model-value="read"
  />
</template>

<style scoped>
.number {
  width: 48px;
}
.wide {
  width: 64px;
}
</style>
