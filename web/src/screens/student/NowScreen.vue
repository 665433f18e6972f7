<script setup lang="ts">
import { computed, ref } from 'vue'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import StudentRow from './StudentRow.vue'
import WholeCourse from './WholeCourse.vue'
import { useStudentLinks } from './useStudentLinks'
import { isWithTeacher, soon, thisWeek } from './wholeCourse'
import { questions } from '../../foundation/api/questions'

/** What now? What is open, what waits and for whom, what came back, this week; below it the whole course. */
const props = defineProps<{ section: number; edition?: number }>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const now = useAnswer(() => questions.now(props.section, viewpoint.query.value), {
  // What opens by feedback opens without a sign: facts tell nobody.
  refetchInterval: 20_000,
})
const answer = now.data
const week = computed(() => (answer.value ? thisWeek(answer.value) : []))
/** What comes within two weeks stands open; the rest is folded. */
const near = computed(() => (answer.value ? soon(answer.value.next, answer.value.moment) : []))
const hasAny = computed(() => {
  const { now: open, next: coming, locked, done } = answer.value!
  return open.length + coming.length + locked.length + done.length > 0
})
const withAll = ref(false)
const next = computed(() => (withAll.value ? answer.value!.next : near.value))
</script>

<template>
  <main class="body">
    <h1 v-if="edition === undefined && !now.data.value" class="head">Now and next</h1>
    <ProblemNote v-if="now.problem.value && !now.data.value" :problem="now.problem.value" :again="now.refetch" />
    <p v-else-if="!now.data.value" class="second" role="status">Reading …</p>
    <div v-else class="sheet-of-work">
      <header>
        <component :is="edition === undefined ? 'h1' : 'h2'" class="head">Now and next</component>
        <p class="second">{{ now.data.value.course }} · {{ now.data.value.section }}</p>
        <p class="second">{{ now.data.value.moment.words }}</p>
        <router-link v-if="now.data.value.hasScores" class="scores" :to="links.scores()">Your scores</router-link>
      </header>
      <nav v-if="now.data.value.welcome.length" class="welcome" aria-label="Welcome">
        <span class="second">Always open:</span>
        <router-link v-for="row in now.data.value.welcome" :key="row.item" :to="links.item(row.item)">{{
          row.title
        }}</router-link>
      </nav>
      <div class="columns">
        <div>
          <section aria-label="Now">
            <h2 class="list-head">Now</h2>
            <p v-if="now.data.value.now.length === 0" class="second none">
              {{ hasAny ? 'Nothing to do right now.' : 'There is nothing in this course yet.' }}
            </p>
            <ul class="ruled">
              <StudentRow
                v-for="row in now.data.value.now"
                :key="row.item"
                v-bind="{ row, edition, section }"
                when="due"
              />
            </ul>
          </section>
          <section v-if="now.data.value.locked.length" aria-label="Waiting">
            <h2 class="list-head">Waiting</h2>
            <ul class="ruled">
              <StudentRow
                v-for="row in now.data.value.locked"
                :key="row.item"
                v-bind="{ row, edition, section }"
                :with-teacher="isWithTeacher(row, now.data.value)"
                when="due"
              />
            </ul>
          </section>
        </div>
        <div>
          <section v-if="now.data.value.back.length" aria-label="Came back">
            <h2 class="list-head">Came back</h2>
            <ul class="ruled">
              <li v-for="row in now.data.value.back" :key="row.item" class="back">
                <router-link :to="links.item(row.item)">{{ row.code }} {{ row.title }}</router-link>
                <span class="small"
                  >{{ row.again ? 'try again' : 'go on' }}, {{ row.mark ? `${row.mark}, ` : '' }}{{ row.at.words }},
                  {{ row.by }}</span
                >
                <q v-if="row.begins">{{ row.begins }}</q>
              </li>
            </ul>
          </section>
          <section v-if="week.length" aria-label="This week">
            <h2 class="list-head">This week</h2>
            <dl class="week small">
              <template v-for="one in week" :key="one.day">
                <dt>{{ one.day }}</dt>
                <dd>{{ one.words.join(' · ') }}</dd>
              </template>
            </dl>
          </section>
        </div>
      </div>
      <WholeCourse v-if="hasAny" v-bind="{ answer: now.data.value, edition, section }" />
      <section v-if="hasAny" aria-label="Next">
        <h2 class="list-head">Next</h2>
        <p v-if="now.data.value.next.length === 0" class="second none">Nothing more is planned yet.</p>
        <ul class="ruled two">
          <StudentRow v-for="row in next" :key="row.item" v-bind="{ row, edition, section }" when="opens" />
        </ul>
        <p v-if="now.data.value.next.length > near.length" class="none">
          <button type="button" class="word-button small" :aria-expanded="withAll" @click="withAll = !withAll">
            {{
              withAll
                ? 'only the next two weeks'
                : `${now.data.value.next.length - near.length} more, later than in two weeks`
            }}
          </button>
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
.welcome {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding: var(--space-4) 0 0;
}
.scores {
  margin-left: auto;
}
.body {
  position: relative;
  min-height: 0;
  overflow: auto;
  border-top: var(--stroke-hair) solid var(--ink);
}
.sheet-of-work {
  padding-bottom: var(--space-9);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-7);
  padding: var(--space-6) 0 var(--space-4);
}
.head {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 var(--space-9);
  align-items: start;
}
.list-head {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
}
.none {
  padding: var(--space-5) 0;
}
.two {
  columns: 2;
  column-gap: var(--space-9);
}
.two > * {
  break-inside: avoid;
}
.week {
  display: grid;
  grid-template-columns: 84px 1fr;
  gap: var(--space-2) var(--space-4);
  padding: var(--space-4) 0;
}
.week dt {
  font-weight: 650;
  color: var(--ink);
}
.back {
  display: grid;
  gap: var(--space-1);
  padding: var(--space-4) 0;
}
.back a {
  font-weight: 600;
  text-decoration: none;
}
.back a:hover {
  text-decoration: underline;
}
@media (max-width: 900px) {
  .two {
    columns: 1;
  }
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
