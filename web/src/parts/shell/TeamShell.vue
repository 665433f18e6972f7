<script setup lang="ts">
import { computed, toRef } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { provideLevels } from '../../foundation/levels'
import { useLive } from '../../foundation/useLive'
import { useViewpoint } from '../../foundation/useViewpoint'
import PageHead from './PageHead.vue'
import ProblemNote from '../ProblemNote.vue'
import PretendBar from './PretendBar.vue'
import TermRibbon from './TermRibbon.vue'
import { pretendOf } from './pretend'

/** What stands around every screen of the team: course, ribbon, and the screens' titles, which are the navigation. */
const props = defineProps<{ edition: number }>()

const edition = toRef(props, 'edition')
const viewpoint = useViewpoint()
const ribbon = useAnswer(
  computed(() => keys.ofEdition(edition.value, 'ribbon', viewpoint.key.value)),
  () =>
    api.GET('/api/editions/{edition}/ribbon', {
      params: { path: { edition: edition.value }, query: viewpoint.query.value },
    }),
  // The moment goes on by itself.
  { refetchInterval: 60_000 },
)
provideLevels(() => ribbon.data.value?.levels)
const { away } = useLive('edition', edition, ribbon.isFetched)
const problem = ribbon.problem
const screens = [
  { name: 'today', title: 'Today' },
  { name: 'outline', title: 'Outline' },
  { name: 'dates', title: 'Dates' },
  { name: 'work', title: 'Work' },
  { name: 'pace', title: 'Pace' },
  { name: 'sections', title: 'Sections' },
  { name: 'editions', title: 'Editions' },
]
/** Through a student's eyes the screens are the student's; the team's are a step back. */
const through = computed(() => ribbon.data.value?.eyes ?? null)
const pretend = computed(() => pretendOf(viewpoint.query.value.as))
/** The team's screens stay at the moment in view, and leave the eyes. */
const asTeam = computed(() => (viewpoint.query.value.at ? { at: viewpoint.query.value.at } : {}))
</script>

<template>
  <div class="shell">
    <PageHead>
      <router-link :to="{ name: 'places' }" class="course" title="All your courses">
        <b>{{ ribbon.data.value?.course ?? '' }}</b>
        <span class="second">{{ ribbon.data.value?.edition }}, {{ ribbon.data.value?.term }}</span>
      </router-link>
    </PageHead>
    <TermRibbon v-if="ribbon.data.value" :ribbon="ribbon.data.value" :edition="edition" />
    <div v-else class="ribbon-place"></div>
    <div>
      <nav aria-label="Screens">
        <h1 v-if="through">What {{ through }} {{ pretend ? 'would see' : 'sees' }}</h1>
        <router-link v-for="screen in screens" :key="screen.name" :to="{ name: screen.name, query: asTeam }">
          <h1 v-if="$route.name === screen.name">{{ screen.title }}</h1>
          <template v-else>{{ screen.title }}</template>
        </router-link>
        <span v-if="away" class="away" role="status">
          No connection to Polycline. What you see may be old; it is read again as soon as it answers.
        </span>
      </nav>
      <PretendBar v-if="pretend && through" :edition="edition" :pretend="pretend" />
    </div>
    <main v-if="problem" class="body"><ProblemNote :problem="problem" /></main>
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
nav {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
  border-top: var(--stroke-hair) solid var(--hair);
  padding: var(--space-5) 0 var(--space-4);
}
nav a {
  display: inline-block;
  padding: var(--space-1) 0;
  text-decoration: none;
}
nav a:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
nav h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.away {
  margin-left: auto;
  color: var(--accent);
  font-size: var(--size-small);
}
</style>
