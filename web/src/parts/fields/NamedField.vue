<script setup lang="ts">
import { useId } from 'vue'

/** A large field under its name, with what is wrong with it: on the pages where an account begins. */
defineProps<{
  name: string
  type?: 'text' | 'email' | 'password'
  autocomplete: string
  placeholder?: string
  autofocus?: boolean
  /** What is wrong with it; null: nothing. */
  wrong?: string | null
}>()
const text = defineModel<string>({ required: true })
const id = useId()
</script>

<template>
  <div>
    <label class="field-name" :for="id">{{ name }}</label>
    <v-text-field
      :id="id"
      v-model="text"
      class="large"
      :type="type ?? 'text'"
      :autocomplete="autocomplete"
      :placeholder="placeholder"
      :autofocus="autofocus"
      :error-messages="wrong ? [wrong] : []"
    />
  </div>
</template>
