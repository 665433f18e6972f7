<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'

const places = useQuery({ queryKey: keys.places, queryFn: () => ask(api.GET('/api/places')) })
const problem = computed(() => (places.error.value ? problemOf(places.error.value) : null))
const nowhere = computed(() => {
  const all = places.data.value
  return all && all.courses.length + all.sections.length + all.terms.length === 0
})
const stateWords: Record<string, string> = { draft: 'coming', current: 'current', resting: 'past' }
const counted = (sections: number) =>
  sections === 0 ? 'no sections' : sections === 1 ? '1 section' : `${sections} sections`
const following = (sections: number) =>
  sections === 0 ? 'no section follows' : sections === 1 ? '1 section follows' : `${sections} sections follow`
</script>

<template>
  <PlainPage>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-else-if="!places.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <p v-if="nowhere" class="second">
        You are on no team and in no section yet. Ask the school office to put you in one.
      </p>
      <section v-if="places.data.value.courses.length" aria-labelledby="courses-title">
        <h1 id="courses-title">Your courses</h1>
        <ul class="ruled">
          <li
            v-for="place in places.data.value.courses"
            :key="place.edition"
            :class="{ resting: place.state === 'resting' }"
          >
            <router-link :to="{ name: 'outline', params: { edition: place.edition } }">
              <b>{{ place.course }}</b> <span>{{ place.title }}</span>
            </router-link>
            <span class="second">{{ stateWords[place.state] }}</span>
            <span class="second">{{ following(place.sections) }}</span>
            <span class="second">{{ place.role === 'lead' ? 'you lead it' : 'you teach it with others' }}</span>
          </li>
        </ul>
      </section>
      <section v-if="places.data.value.sections.length" aria-labelledby="sections-title">
        <h1 id="sections-title">Your sections</h1>
        <ul class="ruled">
          <li v-for="place in places.data.value.sections" :key="place.section">
            <router-link :to="{ name: 'now', params: { section: place.section } }">
              <b>{{ place.course ?? place.name }}</b>
            </router-link>
            <span class="second">{{ place.name }}</span>
            <span class="second">{{ place.term }}</span>
          </li>
        </ul>
      </section>
      <section v-if="places.data.value.terms.length" aria-labelledby="terms-title">
        <h1 id="terms-title">The school’s terms</h1>
        <ul class="ruled">
          <li v-for="place in places.data.value.terms" :key="place.term">
            <router-link :to="{ name: 'calendar', params: { term: place.term } }">
              <b>{{ place.name }}</b>
            </router-link>
            <span class="second">{{ place.dates }}</span>
            <span class="second">{{ counted(place.sections) }}</span>
            <span class="second">{{ place.zone }}</span>
          </li>
        </ul>
      </section>
    </template>
  </PlainPage>
</template>

<style scoped>
section {
  width: min(920px, 100%);
}
h1 {
  border-bottom: var(--stroke-hair) solid var(--ink);
}
li {
  display: grid;
  grid-template-columns: 1fr 160px 160px 190px;
  gap: var(--space-3) var(--space-7);
  padding: var(--space-5) 0;
}
li b {
  font-weight: 600;
}
.resting a {
  color: var(--ink-2);
}
li a {
  text-decoration: none;
}
li a:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
@media (max-width: 700px) {
  li {
    grid-template-columns: 1fr;
  }
}
</style>
