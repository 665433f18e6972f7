<script setup lang="ts">
import WordMark from '../../look/marks/WordMark.vue'
import PersonMenu from './PersonMenu.vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

/** The first line of every page: the name, what is looked at, who one is. */
const places = useAnswer(() => questions.places())
</script>

<template>
  <header>
    <router-link :to="{ name: 'places' }" aria-label="Polycline, all your courses"><WordMark /></router-link>
    <slot />
    <span class="you">
      <slot name="end" />
      <PersonMenu v-if="places.data.value" :name="places.data.value.name" />
    </span>
  </header>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--space-7);
  padding: var(--space-5) 0 var(--space-4);
}
a {
  text-decoration: none;
}
.you {
  display: flex;
  align-items: baseline;
  gap: var(--space-8);
  margin-left: auto;
}
</style>
