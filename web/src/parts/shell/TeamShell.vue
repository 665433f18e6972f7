<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useRoute } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { provideLevels } from '../../foundation/levels'
import { provideSchoolDays } from '../../foundation/dates/schoolDays'
import { useLive } from '../../foundation/useLive'
import { useSection } from '../../foundation/useSection'
import { useViewpoint } from '../../foundation/useViewpoint'
import { plusDays } from '../calendarDays'
import FindPart from '../find/FindPart.vue'
import KeysSheet from '../KeysSheet.vue'
import PageHead from './PageHead.vue'
import ProblemNote from '../ProblemNote.vue'
import PretendBar from './PretendBar.vue'
import StudentBar from './StudentBar.vue'
import TermRibbon from './TermRibbon.vue'
import { pretendOf } from './pretend'
import { questions } from '../../foundation/api/questions'

/** What stands around every screen of the team: course, ribbon, the screen's name and the words of all screens. */
const props = defineProps<{ edition: number }>()

const route = useRoute()
const edition = toRef(props, 'edition')
const viewpoint = useViewpoint()
const ribbon = useAnswer(() => questions.ribbon(edition.value, viewpoint.query.value), {
  // The moment goes on by itself.
  refetchInterval: 60_000,
  stays: true,
})
provideLevels(() => ribbon.data.value?.levels)
provideSchoolDays(() => {
  const known = ribbon.data.value
  if (!known) return undefined
  const on = (place: number) => plusDays(known.origin, place)
  return {
    today: known.moment.local.slice(0, 10),
    first: on(known.from),
    last: on(known.to - 1),
    classDays: known.classDays.map((day) => on(day.at)),
  }
})
const { away } = useLive('edition', edition, ribbon.isFetched)
/** What cannot be read just now leaves what is there standing; what one may no longer see does not. */
const problem = computed(() =>
  ribbon.data.value && ![403, 404].includes(ribbon.problem.value?.status ?? 0) ? null : ribbon.problem.value,
)
const screens = [
  { name: 'today', title: 'Today' },
  { name: 'outline', title: 'Outline' },
  { name: 'dates', title: 'Dates' },
  { name: 'work', title: 'Work' },
  { name: 'pace', title: 'Pace' },
  { name: 'conditions', title: 'Conditions' },
  { name: 'sections', title: 'Sections' },
  { name: 'scores', title: 'Scores' },
  { name: 'editions', title: 'Editions' },
  { name: 'team', title: 'Team' },
]
/** Where marks are kept elsewhere, nothing is said of scores. */
const shown = computed(() => screens.filter((screen) => screen.name !== 'scores' || ribbon.data.value?.hasScores))
/** Through a student's eyes the screens are the student's; the team's are a step back. */
const through = computed(() => ribbon.data.value?.eyes ?? null)
const pretend = computed(() => pretendOf(viewpoint.query.value.as))
const student = computed(() => Number(/^student:(\d+)$/.exec(viewpoint.query.value.as ?? '')?.[1]) || null)
/** The team's screens stay at the moment and the section in view, and leave the eyes. */
const { section } = useSection()
const asTeam = computed(() => ({
  ...(viewpoint.query.value.at && { at: viewpoint.query.value.at }),
  ...(section.value !== null && { section: section.value }),
}))
/** Screens that one comes to from others. */
const further: Record<string, string> = { 'one-student': 'Student', joining: 'Following', ready: 'Is it ready?' }
const here = computed(() => screens.find((screen) => screen.name === route.name)?.title ?? further[String(route.name)])
const keysShown = ref(false)
</script>

<template>
  <div class="shell">
    <PageHead>
      <router-link :to="{ name: 'places' }" class="course" title="All your courses">
        <b>{{ ribbon.data.value?.course ?? '' }}</b>
        <span class="second">{{ ribbon.data.value?.edition }}, {{ ribbon.data.value?.term }}</span>
      </router-link>
      <template #end><FindPart :edition="edition" /></template>
    </PageHead>
    <TermRibbon v-if="ribbon.data.value" :ribbon="ribbon.data.value" :edition="edition" />
    <div v-else class="ribbon-place"></div>
    <div>
      <nav class="screens" aria-label="Screens">
        <h1 :class="{ through }">
          {{ through ? `As ${through}` : here }}
        </h1>
        <div class="words">
          <router-link
            v-for="screen in shown"
            :key="screen.name"
            :to="{ name: screen.name, query: asTeam }"
            :class="{ here: $route.name === screen.name }"
            ><span>{{ screen.title }}</span></router-link
          >
        </div>
        <span v-if="away" class="away" role="status">
          No connection to Polycline. What you see may be out of date; it is read again as soon as there is one.
        </span>
        <button v-else type="button" class="word-button keys" @click="keysShown = true">keys ?</button>
      </nav>
      <KeysSheet v-model="keysShown" />
      <PretendBar v-if="pretend && through" :edition="edition" :pretend="pretend" />
      <StudentBar v-else-if="student && through" :key="student" :edition="edition" :student="student" :name="through" />
    </div>
    <main v-if="problem" class="body"><ProblemNote :problem="problem" :again="ribbon.refetch" /></main>
    <router-view v-else />
  </div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-rows: auto auto auto 1fr;
  /* Whatever stands anywhere in it, seen or only said, never makes the page itself scroll away. */
  position: relative;
  height: 100dvh;
  padding: 0 var(--space-8);
  overflow: clip;
}
/* Where there is little room, or the text is large, the page scrolls, and what is on the screen keeps a height of its own. */
@media (max-width: 900px), (max-height: 560px) {
  .shell {
    grid-template-rows: auto auto auto 560px;
    height: auto;
    padding: 0 var(--space-6);
    overflow: visible;
  }
}
.course {
  text-decoration: none;
}
.course b {
  font-weight: 650;
  padding-right: var(--space-3);
}
.course:hover b {
  text-decoration: underline;
}
.ribbon-place {
  height: 82px;
  border-top: var(--stroke-hair) solid var(--ink);
}
.screens {
  display: grid;
  grid-template-columns: 196px 1fr auto;
  align-items: baseline;
  border-top: var(--stroke-hair) solid var(--hair);
  padding: var(--space-4) 0 0;
}
h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
  white-space: nowrap;
}
/* Somebody's name may be long: it stands in the same place, smaller. */
h1.through {
  font-size: var(--size-large);
  white-space: normal;
  padding-right: var(--space-6);
}
.words {
  display: grid;
  grid-template-columns: repeat(auto-fill, 88px);
}
.words a {
  padding: var(--space-3) 0 var(--space-5);
  color: var(--ink-2);
  text-decoration: none;
}
.words a span {
  padding-bottom: var(--space-2);
  border-bottom: var(--stroke-bold) solid transparent;
}
.words a:hover span {
  border-color: var(--hair);
}
.words a.here {
  color: var(--ink);
  font-weight: 650;
}
.words a.here span {
  border-color: var(--accent);
}
/* Lines that are not there would be drawn too. */
@media (forced-colors: active) {
  .words a:not(.here) span {
    border-color: Canvas;
  }
}
@media (max-width: 900px) {
  .screens {
    grid-template-columns: 1fr auto;
  }
  .words {
    grid-row: 2;
    grid-column: 1 / -1;
  }
}
.keys {
  color: var(--ink-2);
  text-decoration-color: transparent;
}
.away {
  max-width: 320px;
  color: var(--accent);
  font-size: var(--size-small);
}
</style>
