<script setup lang="ts">
import { computed } from 'vue'
import { type Shown, countOf, countWords } from './graph'

/** The conditions as a list in words, by unit: what waits for what, and how many are where. */
const props = defineProps<{
  shown: Shown[]
  inView: ReadonlySet<number>
  chosen: string | null
  faultsOf: (keys: readonly string[]) => { words: string }[]
}>()
const emit = defineEmits<{ choose: [key: string] }>()

const units = computed(() => {
  const places = props.shown.flatMap((one) => one.places).filter((place) => place.condition !== null)
  return [...new Set(places.map((place) => place.unit))].map((title) => ({
    title,
    places: places.filter((place) => place.unit === title),
  }))
})
</script>

<template>
  <div class="list">
    <section v-for="unit in units" :key="unit.title" :aria-label="unit.title">
      <h2 class="ruled-head">{{ unit.title }}</h2>
      <ul class="ruled">
        <li v-for="place in unit.places" :key="place.key">
          <button
            type="button"
            class="name"
            :aria-pressed="chosen === place.key"
            :data-place="place.key"
            @click="emit('choose', place.key)"
          >
            {{ place.code }} {{ place.title }}
          </button>
          <span>{{ place.condition }}</span>
          <span class="small">{{ countWords(place, countOf(place, inView)) }}</span>
          <span v-for="fault in faultsOf([place.key])" :key="fault.words" class="fault">? {{ fault.words }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.list {
  display: grid;
  gap: var(--space-6);
  align-content: start;
  max-width: 110ch;
}
.ruled > li {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr) 200px;
  gap: var(--space-1) var(--space-6);
  padding: var(--space-3) 0;
}
.name {
  font-weight: 600;
}
.name[aria-pressed='true'] {
  color: var(--accent);
}
.fault {
  grid-column: 2 / -1;
  color: var(--accent);
}
</style>
