<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted, joined } from '../../foundation/words'
import type { Waits } from './graph'

/** Where students wait for feedback: how many in which section, since when, and what would help. */
const props = defineProps<{ edition: number; waits: Waits[]; sections: Schemas['ConditionSection'][] }>()
const emit = defineEmits<{ choose: [key: string] }>()

const viewpoint = useViewpoint()
const lines = computed(() =>
  props.waits.map(({ place, students }) => {
    const people = new Set(students.map((one) => one.student)).size
    const bySection = props.sections.flatMap((section) => {
      const many = new Set(students.filter((one) => one.section === section.section).map((one) => one.student)).size
      return many ? [`${many} in ${section.name}`] : []
    })
    const oldest = students.map((one) => one.since).toSorted((a, b) => a.local.localeCompare(b.local))[0]!
    const first = students.find((one) => one.since === oldest)!
    return { place, people, bySection: joined(bySection), oldest, first }
  }),
)
</script>

<template>
  <section class="waits" aria-label="Waiting for feedback">
    <article v-for="{ place, people, bySection, oldest, first } in lines" :key="place.key" class="one">
      <p>
        <b>{{ people }} {{ people === 1 ? 'waits' : 'wait' }} at {{ place.code || place.title }}</b>
      </p>
      <p class="small">{{ bySection }}: handed in, not given back. The oldest since {{ oldest.words }}.</p>
      <p class="small">
        <router-link
          :to="{
            name: 'work',
            params: { edition },
            query: { ...viewpoint.query.value, section: first.section, item: first.piece, student: first.student },
          }"
          >read {{ people === 1 ? 'it' : `these ${people}` }}</router-link
        >
        ·
        <button
          type="button"
          class="word-button"
          :aria-label="`open ${place.title} for one of them`"
          @click="emit('choose', place.key)"
        >
          open for one of them
        </button>
      </p>
    </article>
    <p v-if="lines.length === 0" class="small second">
      Nobody waits for feedback. Choose a place to see who is before it, at it and past it, and why.
    </p>
    <p v-else class="said-only">{{ counted(lines.length, 'place') }}</p>
  </section>
</template>

<style scoped>
.waits {
  display: grid;
  gap: var(--space-6);
  align-content: start;
}
.one {
  display: grid;
  gap: var(--space-1);
  padding: var(--space-4) var(--space-5);
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--accent);
}
</style>
