<script setup lang="ts">
import { computed, ref } from 'vue'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import CourseLine from './CourseLine.vue'
import SchoolName from './SchoolName.vue'
import NewTerm from './NewTerm.vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

const places = useAnswer(() => questions.places())
const problem = places.problem
const nowhere = computed(() => {
  const all = places.data.value
  return all && !all.isOffice && !all.makesCourses && all.courses.length + all.sections.length + all.terms.length === 0
})
const current = computed(() => (places.data.value?.courses ?? []).filter((place) => place.state !== 'resting'))
const past = computed(() => (places.data.value?.courses ?? []).filter((place) => place.state === 'resting'))
const isNewTerm = ref(false)
const isRenaming = ref(false)
const counted = (sections: number) =>
  sections === 0 ? 'no sections' : sections === 1 ? '1 section' : `${sections} sections`
</script>

<template>
  <PlainPage>
    <h1 v-if="!places.data.value || nowhere" class="said-only">Your courses</h1>
    <ProblemNote v-if="problem && !places.data.value" :problem="problem" :again="places.refetch" />
    <p v-else-if="!places.data.value" class="second" role="status">Reading …</p>
    <template v-else>
      <p v-if="nowhere" class="second">You are not on a team or in a section yet. Ask the school office to add you.</p>
      <section
        v-if="places.data.value.courses.length || places.data.value.makesCourses"
        aria-labelledby="courses-title"
      >
        <div class="head">
          <h1 id="courses-title">Your courses</h1>
          <router-link v-if="places.data.value.makesCourses" :to="{ name: 'new-course' }" class="word-button"
            >new course</router-link
          >
        </div>
        <p v-if="places.data.value.courses.length === 0" class="second none">
          You have no course yet. Make one, or ask a colleague to add you to theirs.
        </p>
        <ul v-else>
          <CourseLine v-for="place in current" :key="place.edition" :place="place" />
        </ul>
        <p v-if="past.length" class="past">
          <b>Past</b>
          <router-link
            v-for="place in past"
            :key="place.edition"
            :to="{ name: 'outline', params: { edition: place.edition } }"
            >{{ place.course }}, {{ place.title }}</router-link
          >
        </p>
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
      <section v-if="places.data.value.isOffice" aria-labelledby="school-title">
        <div class="head">
          <h1 id="school-title">{{ places.data.value.school ?? 'The school' }}</h1>
          <button type="button" class="word-button" @click="isRenaming = !isRenaming">rename</button>
        </div>
        <SchoolName v-if="isRenaming" :name="places.data.value.school ?? ''" @close="isRenaming = false" />
        <ul class="ruled">
          <li>
            <router-link :to="{ name: 'people' }"><b>People</b></router-link>
            <span class="second wide">everybody with an account: add them, invite them, end their sessions</span>
          </li>
          <li>
            <router-link :to="{ name: 'outcomes' }"><b>Outcomes</b></router-link>
            <span class="second wide">what students should be able to do, for courses to be tied to</span>
          </li>
          <li>
            <router-link :to="{ name: 'record' }"><b>Who did what</b></router-link>
            <span class="second wide">accounts, rosters, courses, and every change of a plan</span>
          </li>
        </ul>
      </section>
      <section v-if="places.data.value.schoolCourses.length" aria-labelledby="school-courses-title">
        <h1 id="school-courses-title">The school’s courses</h1>
        <ul class="ruled">
          <li v-for="place in places.data.value.schoolCourses" :key="place.edition">
            <router-link :to="{ name: 'team', params: { edition: place.edition } }">
              <b>{{ place.course }}</b>
            </router-link>
            <span class="second">{{ place.title }}</span>
            <span class="second">{{ counted(place.sections) }}</span>
            <span class="second">its team</span>
          </li>
        </ul>
      </section>
      <section v-if="places.data.value.isOffice" aria-labelledby="terms-title">
        <div class="head">
          <h1 id="terms-title">The school’s terms</h1>
          <button type="button" class="word-button" @click="isNewTerm = !isNewTerm">new term</button>
        </div>
        <NewTerm v-if="isNewTerm" :terms="places.data.value.terms" @close="isNewTerm = false" />
        <p v-if="places.data.value.terms.length === 0" class="second none">There is no term yet.</p>
        <ul v-else class="ruled">
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
      <p v-if="!places.data.value.isOffice" class="small">
        Somebody gave you a section code?
        <router-link :to="{ name: 'join' }">Join a section</router-link>.
      </p>
    </template>
  </PlainPage>
</template>

<style scoped>
.past {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-6);
  padding: var(--space-6) 0;
}
h1,
.head {
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
}
.head h1 {
  border: 0;
}
.none {
  padding: var(--space-5) 0;
}
.ruled li {
  display: grid;
  grid-template-columns: 1fr 160px 160px 190px;
  gap: var(--space-3) var(--space-7);
  padding: var(--space-5) 0;
}
.wide {
  grid-column: 2 / -1;
}
li b {
  font-weight: 600;
}
li a {
  text-decoration: none;
}
li a:hover b {
  text-decoration: underline;
  text-underline-offset: 3px;
}
@media (max-width: 700px) {
  .ruled li {
    grid-template-columns: 1fr;
  }
}
</style>
