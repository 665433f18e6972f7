<script setup lang="ts" generic="T">
import { computed } from 'vue'
import type { Choice } from './ChoiceField.vue'

/** One of a few, all of them in view. */
const props = defineProps<{ label: string; choices: readonly Choice<T>[]; disabled?: boolean }>()
const chosen = defineModel<T>({ required: true })

// By place, as what is chosen may be nothing.
const at = computed({
  get: () => props.choices.findIndex((one) => one.value === chosen.value),
  set: (place) => {
    const choice = props.choices[place]
    if (choice) chosen.value = choice.value
  },
})
</script>

<template>
  <v-radio-group v-model="at" class="one-of" :aria-label="label" :disabled="disabled">
    <v-radio v-for="(one, place) in choices" :key="place" :value="place" :label="one.title" />
  </v-radio-group>
</template>
