<script setup lang="ts">
import { ref } from 'vue'

/** The address that the chosen words of a text link to. */
const props = defineProps<{ present: string }>()
const emit = defineEmits<{ set: [address: string]; close: [] }>()

const typed = ref(props.present)
</script>

<template>
  <p class="line">
    <label class="small" for="link-address">Web or mail address</label>
    <v-text-field
      id="link-address"
      v-model="typed"
      placeholder="https://"
      maxlength="2000"
      autofocus
      @keydown.enter.prevent="emit('set', typed)"
      @keydown.esc.stop.prevent="emit('close')"
    />
    <v-btn @click="emit('set', typed)">{{ typed.trim() ? 'Link it' : 'Remove the link' }}</v-btn>
  </p>
</template>
