<script setup lang="ts">
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

/** What was imported into the term, the latest first; each can be taken back. */
const props = defineProps<{ term: number }>()
const emit = defineEmits<{ takeBack: [number: number] }>()
const past = useAnswer(() => questions.rosters(props.term))
</script>

<template>
  <section v-if="past.data.value?.imports.length" aria-labelledby="past-title">
    <h2 id="past-title" class="ruled-head">Imported before</h2>
    <slot />
    <ul class="ruled">
      <li v-for="one in past.data.value.imports" :key="one.import">
        <span>{{ one.words }}</span>
        <span class="second">{{ one.sentence }}</span>
        <span v-if="one.takenBack" class="second">taken back</span>
        <button v-else type="button" class="word-button" @click="emit('takeBack', one.import)">
          take it back<span class="said-only">: {{ one.words }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
li {
  display: grid;
  grid-template-columns: 2fr 3fr auto;
  gap: var(--space-6);
  padding: var(--space-3) 0;
}
</style>
