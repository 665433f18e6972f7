<script setup lang="ts">
import { computed, ref, watch, watchEffect } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useScreenKeys } from '../../foundation/useKeys'
import { useSection } from '../../foundation/useSection'
import { capital, useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import { standing } from '../pace/paceWords'
import ClassPanel from './ClassPanel.vue'
import ClassesHere from './ClassesHere.vue'
import GroupsHere from './GroupsHere.vue'
import HerePanel from './HerePanel.vue'
import LessonsHere from './LessonsHere.vue'
import LostPanel from './LostPanel.vue'
import PutBack from './PutBack.vue'
import TimetablePanel from './TimetablePanel.vue'
import type { Wanted } from './classes'
import type { Place } from './here'
import { useSections } from './useSections'

/** When does each section meet, in which order does it go, and what does it do differently from the course? */
const props = defineProps<{ edition: number }>()
const levels = useLevels()

const { pace, sections, problem } = useSections(props)
const route = useRoute()
const router = useRouter()
const { section: chosen, choose: chooseSection } = useSection()
const tabs = ['classes', 'lessons', 'groups'] as const
/** What is listed stands in the address. */
const shows = computed(() => tabs.find((tab) => tab === route.query.shows) ?? 'classes')
/** What is being changed, in the panel below. */
const open = ref<{ wanted: Wanted } | { place: Place } | 'timetable' | null>(null)
watch(
  () => route.query.shows,
  (what) => what === 'timetable' && (open.value = 'timetable'),
  { immediate: true },
)
const cards = computed(() => sections.data.value?.sections ?? [])
const card = computed(() => cards.value.find((one) => one.id === chosen.value) ?? cards.value[0])
const line = computed(() => pace.data.value?.sections.find((one) => one.id === card.value?.id))
const canChange = computed(() => sections.data.value?.canChange ?? false)
const place = computed(() =>
  open.value && open.value !== 'timetable' && 'place' in open.value ? open.value.place : null,
)
const wanted = computed(() =>
  open.value && open.value !== 'timetable' && 'wanted' in open.value ? open.value.wanted : null,
)
const facts = computed(() => {
  const differences = cards.value.reduce((sum, one) => sum + one.differences.length, 0)
  return [`${cards.value.length} sections`, differences === 1 ? '1 difference' : `${differences} differences`]
})

const stop = watchEffect(() => {
  if (!line.value) return
  const row = card.value?.units.flatMap((unit) =>
    unit.lessons.map((lesson) => ({ of: 'lesson' as const, unit, lesson })),
  )
  const named = row?.find((one) => `lesson-${one.lesson.id}` === route.query.row)
  if (named) open.value = { place: named }
  const lost = line.value.classes.find((one) => one.ordinal === Number(route.query.lost))
  if (lost) open.value = { wanted: { what: 'cancel', of: lost } }
  queueMicrotask(() => stop())
})

async function choose(id: number): Promise<void> {
  open.value = null
  await chooseSection(id, ['row', 'lost'])
}

async function show(what: (typeof tabs)[number]): Promise<void> {
  open.value = null
  await router.replace({ query: { ...route.query, shows: what, row: undefined, lost: undefined } })
}

useScreenKeys([{ key: 'Escape', words: 'leave it unchanged', run: () => (open.value = null) }])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="problem && !card" :problem="problem" />
    <p v-else-if="!sections.data.value || !pace.data.value" class="second" role="status">Reading the sections …</p>
    <p v-else-if="!card || !line" class="second none">
      This edition has no section yet. Add one in the outline, or roll over into a term with sections.
    </p>
    <template v-else>
      <nav class="choice" aria-label="Section">
        <button
          v-for="one in pace.data.value.sections"
          :key="one.id"
          type="button"
          :aria-pressed="one.id === card.id"
          @click="choose(one.id)"
        >
          <SectionKey :letter="one.letter" :name="one.name" />
          <span class="small">{{ one.students }} students, {{ standing(one, pace.data.value.unit) }}</span>
        </button>
      </nav>
      <div class="two">
        <section
          class="list"
          tabindex="0"
          :aria-label="`${card.name}, ${shows === 'lessons' ? levels.lesson.many : shows}`"
        >
          <p class="ruled-head head">
            <button type="button" class="tab" :aria-pressed="shows === 'classes'" @click="show('classes')">
              {{ line.classes.length }} classes
            </button>
            <button type="button" class="tab" :aria-pressed="shows === 'lessons'" @click="show('lessons')">
              {{ capital(levels.lesson.many) }}
            </button>
            <button type="button" class="tab" :aria-pressed="shows === 'groups'" @click="show('groups')">Groups</button>
          </p>
          <ClassesHere
            v-if="shows === 'classes'"
            :section="line"
            :can-change="canChange"
            @want="(what) => (open = { wanted: what })"
          />
          <GroupsHere v-else-if="shows === 'groups'" :edition="edition" :section="card.id" />
          <LessonsHere
            v-else
            :card="card"
            :unit="sections.data.value.unit"
            :can-change="canChange"
            :chosen="place"
            @choose="(what) => (open = { place: what })"
          />
        </section>
        <section class="own" tabindex="0" :aria-label="`${card.name}: timetable and differences`">
          <p class="ruled-head head">
            <span>Meets</span>
            <button v-if="canChange" type="button" class="word-button" @click="open = 'timetable'">change</button>
          </p>
          <ul class="times">
            <li v-for="time in card.timetable" :key="time">{{ time }}</li>
            <li v-if="card.timetable.length === 0" class="second">at no time yet</li>
          </ul>
          <p class="small">Taught by {{ card.teachers.join(' and ') || 'nobody yet' }}</p>
          <p class="ruled-head differs">What differs from the course</p>
          <p v-if="card.differences.length === 0" class="second none">
            Nothing: it follows the course and meets as its timetable says. Anything changed for this section is listed
            here, and put back with one click.
          </p>
          <ul>
            <li v-for="difference in card.differences" :key="JSON.stringify(difference)">
              <PutBack :edition="edition" :section="card.id" :difference="difference" :can-change="canChange" />
            </li>
          </ul>
        </section>
      </div>
      <template v-if="canChange && open">
        <LostPanel
          v-if="wanted?.what === 'cancel' && wanted.of"
          :key="`${card.id} lost ${wanted.of.ordinal}`"
          :edition="edition"
          :section="line"
          :lost="wanted.of"
          :unit="sections.data.value.unit"
          @close="open = null"
        />
        <ClassPanel
          v-else-if="wanted"
          :key="`${card.id} ${wanted.what} ${wanted.of?.ordinal}`"
          :edition="edition"
          :section="line"
          :wanted="wanted"
          @close="open = null"
        />
        <HerePanel
          v-else-if="place"
          :key="`${card.id} ${JSON.stringify(place)}`"
          :edition="edition"
          :card="card"
          :place="place"
          :unit="sections.data.value.unit"
          @close="open = null"
        />
        <TimetablePanel
          v-else
          :key="card.id"
          :edition="edition"
          :answer="sections.data.value"
          :card="card"
          @close="open = null"
        />
      </template>
    </template>
  </main>
  <TitleBlock v-if="sections.data.value" :edition="edition" :facts="facts" :can-change="canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr auto;
  min-height: 0;
}
.none {
  padding: var(--space-5) 0;
}
.choice {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: var(--space-4) var(--space-7);
  padding-bottom: var(--space-6);
}
.choice button {
  display: grid;
  align-content: start;
  border-bottom: var(--stroke-strong) solid transparent;
}
.choice button[aria-pressed='true'] {
  border-color: var(--ink);
}
.two {
  display: grid;
  grid-template-columns: 1fr 400px;
  gap: var(--space-9);
  min-height: 0;
}
.list,
.own {
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-9);
}
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
}
.head .word-button {
  margin-left: auto;
}
.tab[aria-pressed='true'] {
  font-weight: 650;
}
.tab[aria-pressed='false'] {
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}
.times {
  padding: var(--space-4) 0 var(--space-3);
}
.differs {
  padding-top: var(--space-8);
}
.own li + li {
  border-top: var(--stroke-hair) solid var(--faint-hair);
}
.own ul:not(.times) li {
  padding: var(--space-4) 0;
}
.times li + li {
  border: 0;
}
</style>
