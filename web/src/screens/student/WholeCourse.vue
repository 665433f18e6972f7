<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import StateMark from '../../look/marks/StateMark.vue'
import FoundPassage from '../../parts/find/FoundPassage.vue'
import { useSought } from '../../parts/find/useSought'
import WordField from '../../parts/fields/WordField.vue'
import { questions } from '../../foundation/api/questions'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useStudentLinks } from './useStudentLinks'
import { type StudentItem, isDone, matching, wholeCourse } from './wholeCourse'
import { progressWords, stateMarks, stateWords } from './words'

/** The whole course below what is now: a line for each unit with a stop for every item one may know of, or a list. */
const props = defineProps<{ answer: Schemas['NowAnswer']; section: number; edition?: number }>()

const links = useStudentLinks(props)
const units = computed(() => wholeCourse(props.answer))
const all = computed(() => units.value.reduce((sum, unit) => sum + unit.stops.length, 0))
const done = computed(() => units.value.reduce((sum, unit) => sum + unit.done, 0))
const asList = useLocalStorage('polycline-course-as-list', false, { writeDefaults: false })
const written = ref('')
const listed = computed(() => matching(units.value, written.value))
const viewpoint = useViewpoint()
const sought = useSought(written, (words) => questions.studentSearch(props.section, words, viewpoint.query.value))
/** What is found by what is written in it, where its title does not say so already. */
const inTexts = computed(() => {
  const named = new Set(listed.value.flatMap((unit) => unit.stops.map((stop) => stop.item)))
  return sought.hits.value.filter((hit) => hit.place !== 'title' && !named.has(hit.item))
})
const isList = computed(() => asList.value || written.value.trim() !== '')

const stopOf = (stop: StudentItem) =>
  isDone(stop) ? 'done' : stop.state === 'open' || stop.state === 'overdue' ? 'now' : 'ahead'
const wordsOf = (stop: StudentItem) => progressWords[stop.progress] || stateWords[stop.state] || stop.state
const saying = (stop: StudentItem) => `${stop.code} ${stop.title}: ${wordsOf(stop)}`
</script>

<template>
  <section aria-label="The course">
    <h2 class="list-head">
      The course
      <span class="small">{{ done }} of {{ all }} done</span>
      <button type="button" class="word-button small" @click="asList = !asList">
        {{ asList ? 'as lines' : 'as a list' }}
      </button>
      <WordField v-model="written" label="Find a word" placeholder="find a word" class="find" />
    </h2>
    <template v-if="isList">
      <p v-if="listed.length === 0 && !sought.busy.value && inTexts.length === 0" class="second none">
        Nothing here is called “{{ written }}”{{ sought.isLongEnough.value ? ', or says so' : '' }}.
      </p>
      <template v-for="unit in listed" :key="unit.title">
        <h3>
          <router-link :to="links.unit(unit.id)">{{ unit.title }}</router-link>
        </h3>
        <ul class="ruled">
          <li v-for="stop in unit.stops" :key="stop.item" class="item">
            <StateMark :state="stateMarks[stop.state] ?? 'open'" alone />
            <span class="code">{{ stop.code }}</span>
            <router-link v-if="stop.canOpen" :to="links.item(stop.item)">{{ stop.title }}</router-link>
            <span v-else>{{ stop.title }}</span>
            <span class="small">{{ wordsOf(stop) }}</span>
          </li>
        </ul>
      </template>
      <template v-if="inTexts.length">
        <h3>In texts and files</h3>
        <ul class="ruled" aria-label="In texts and files">
          <li v-for="hit in inTexts" :key="hit.item" class="passage">
            <span class="code">{{ hit.code }}</span>
            <router-link :to="links.item(hit.item)">{{ hit.title }}</router-link>
            <FoundPassage :hit="hit" />
          </li>
        </ul>
      </template>
      <p v-if="sought.busy.value" class="small second" role="status">Looking in texts and files …</p>
    </template>
    <ul v-else class="ruled">
      <li v-for="(unit, n) in units" :key="unit.title" class="unit">
        <span class="code">{{ n + 1 }}</span>
        <router-link class="name" :to="links.unit(unit.id)">{{ unit.title }}</router-link>
        <ol class="line">
          <li v-for="stop in unit.stops" :key="stop.item" :class="stopOf(stop)">
            <router-link
              v-if="stop.canOpen"
              :to="links.item(stop.item)"
              :title="saying(stop)"
              :aria-label="saying(stop)"
            />
            <span v-else role="img" :title="saying(stop)" :aria-label="saying(stop)"></span>
          </li>
        </ol>
        <span class="small">{{
          unit.done === unit.stops.length
            ? 'done'
            : unit.from
              ? `from ${unit.from}`
              : `${unit.done} of ${unit.stops.length}`
        }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.list-head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-7) 0 var(--space-2);
}
.list-head .small,
.find {
  font-family: var(--face-text);
  font-weight: 400;
}
.find {
  width: 160px;
  font-size: var(--size-small);
}
.none {
  padding: var(--space-5) 0;
}
h3 {
  padding: var(--space-5) 0 var(--space-2);
  font-weight: 650;
}
.code {
  color: var(--ink-2);
}
.passage {
  display: grid;
  grid-template-columns: 48px auto minmax(0, 1fr);
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
@media (max-width: 600px) {
  .passage {
    grid-template-columns: 48px minmax(0, 1fr);
  }
  .passage > :last-child {
    grid-column: 2;
  }
}
.item {
  display: grid;
  grid-template-columns: 20px 48px 1fr auto;
  align-items: baseline;
  gap: var(--space-4);
  min-height: 28px;
  padding: var(--space-2) 0;
}
.item a {
  text-decoration: none;
}
.item a:hover {
  text-decoration: underline;
}
.unit {
  display: grid;
  grid-template-columns: 26px 220px 1fr auto;
  align-items: center;
  gap: var(--space-4);
  min-height: 34px;
}
.name {
  font: 560 var(--size-text) / 1.3 var(--face-display);
}
/* A line with a stop for every item, each wide enough to be pressed. */
.line {
  display: flex;
  flex-wrap: wrap;
}
.line li {
  position: relative;
  width: 28px;
  height: 26px;
}
.line li + li::before {
  content: '';
  position: absolute;
  left: -9px;
  top: 12px;
  width: 18px;
  border-top: var(--stroke-line) solid var(--hair);
}
.line .done + .done::before {
  border-color: var(--section-a);
}
.line a,
.line span {
  display: block;
  width: 26px;
  height: 26px;
  margin: 0 auto;
}
.line a::after,
.line span::after {
  content: '';
  position: absolute;
  inset: 8px 9px 8px 9px;
  border: var(--stroke-line) solid var(--line);
  border-radius: 50%;
}
.line .done a::after,
.line .done span::after {
  border-color: var(--section-a);
  background: var(--section-a);
}
.line .now a::after,
.line .now span::after {
  inset: 6px 7px;
  border: var(--stroke-strong) solid var(--accent);
}
@media (max-width: 700px) {
  .unit {
    grid-template-columns: 20px 1fr auto;
  }
  .line {
    grid-column: 2 / -1;
    padding-bottom: var(--space-4);
  }
  .item {
    grid-template-columns: 20px 44px 1fr;
  }
  .item > :last-child {
    grid-column: 3;
  }
}
</style>
