<script setup lang="ts">
import { computed } from 'vue'
import { api, once } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import ToCheck from './ToCheck.vue'
import ToConfirm from './ToConfirm.vue'

/** What needs me? Section by section, on the moment's day and in the week ahead. */
const props = defineProps<{ edition: number }>()
const levels = useLevels()

const viewpoint = useViewpoint()
const today = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'today', viewpoint.key.value)),
  () =>
    api.GET('/api/editions/{edition}/today', {
      params: { path: { edition: props.edition }, query: viewpoint.query.value },
    }),
  { refetchInterval: 60_000 },
)
const facts = computed(() => {
  const sections = today.data.value?.sections ?? []
  const sum = (of: (section: (typeof sections)[number]) => number) => sections.reduce((n, one) => n + of(one), 0)
  const confirm = sum((one) => one.toConfirm.length)
  return [
    `${sum((one) => one.waiting ?? 0)} pieces wait`,
    `${levels.value.lesson.counted(confirm)} to confirm`,
    `${sum((one) => one.toCheck.length)} to check`,
  ]
})
async function look(): Promise<void> {
  const batch = today.data.value?.changed[0]?.batch
  if (!batch) return
  await api
    .POST('/api/editions/{edition}/mark-changes-seen', {
      params: { path: { edition: props.edition }, header: once() },
      body: { batch },
    })
    .catch(() => undefined)
  await today.refetch()
}

/** A week of one section, from the moment in view on. */
const ahead = (local: string): string => {
  const end = new Date(`${local.slice(0, 10)}T00:00Z`)
  end.setUTCDate(end.getUTCDate() + 7)
  return `${local.slice(0, 16)}/${end.toISOString().slice(0, 10)}${local.slice(10, 16)}`
}

const names = (list: string[]) =>
  list.length <= 3 ? list.join(', ') : `${list.slice(0, 3).join(', ')} and ${list.length - 3} more`
</script>

<template>
  <main class="body">
    <ProblemNote v-if="today.problem.value && !today.data.value" :problem="today.problem.value" />
    <p v-else-if="!today.data.value" class="second" role="status">Reading the day …</p>
    <p v-else-if="today.data.value.sections.length === 0" class="second none">
      This edition has no section yet, so nothing meets and nothing is due. Add a section in the outline.
    </p>
    <div v-else class="days" tabindex="0" aria-label="The day, section by section">
      <section v-if="today.data.value.course.length > 0" class="course" aria-label="To check in the course">
        <p class="ruled-head small">To check in the course itself</p>
        <ToCheck :checks="today.data.value.course" :edition="edition" />
      </section>
      <section v-if="today.data.value.changed.length > 0" class="changed" aria-label="What others changed">
        <p class="ruled-head small line">
          Changed by others since you last looked
          <button v-if="today.data.value.canChange" type="button" class="word-button" @click="look">
            I have seen it
          </button>
        </p>
        <ul>
          <li v-for="change in today.data.value.changed.slice(0, 6)" :key="change.batch">
            <span class="when">{{ change.at.words }}</span> {{ change.author }} {{ change.words }}
          </li>
        </ul>
        <p v-if="today.data.value.changed.length > 6" class="small">
          and {{ today.data.value.changed.length - 6 }} more, in all changes below
        </p>
      </section>
      <section v-for="section in today.data.value.sections" :key="section.id" class="section">
        <header>
          <h2><SectionKey :letter="section.letter" :name="section.name" /></h2>
          <p v-for="one in section.classes" :key="one.start" :class="{ second: one.isOver }">
            <b>{{ one.start }}–{{ one.end }}</b> {{ one.lesson || 'nothing planned' }}
          </p>
          <p v-if="section.classes.length === 0" class="second">no class today</p>
        </header>
        <div>
          <p class="ruled-head small">Opens or is due within a week</p>
          <ul>
            <li v-for="date in section.comes.slice(0, 6)" :key="`${date.what} ${date.item}`" class="date">
              <span class="when">{{ date.at.words }}</span>
              <span
                ><router-link
                  :to="{
                    name: 'dates',
                    query: {
                      ...$route.query,
                      section: section.id,
                      item: date.item,
                      field: date.what === 'opens' ? 'opens' : 'due',
                    },
                  }"
                  ><span class="code">{{ date.code }}</span> {{ date.title }}</router-link
                >{{ ' ' }}<span class="small">{{ date.what }} {{ date.relative }}</span></span
              >
            </li>
          </ul>
          <p v-if="section.comes.length > 6" class="small">
            and {{ section.comes.length - 6 }} more:
            <router-link
              :to="{
                name: 'dates',
                query: { ...$route.query, section: section.id, week: ahead(today.data.value.moment.local) },
              }"
              >all of this week</router-link
            >
          </p>
          <p v-if="section.comes.length === 0" class="second">nothing</p>
        </div>
        <div>
          <p class="ruled-head small">Waits for you</p>
          <p v-if="section.waiting">
            <router-link :to="{ name: 'work', query: { ...$route.query, section: section.id } }"
              >{{ section.waiting === 1 ? '1 piece' : `${section.waiting} pieces` }} to read</router-link
            >, the first handed in {{ section.longestSince }}
          </p>
          <p v-if="section.freesMost" class="small">
            <router-link
              :to="{
                name: 'work',
                query: {
                  ...$route.query,
                  section: section.id,
                  item: section.freesMost.item,
                  student: section.freesMost.student,
                },
              }"
              >{{ section.freesMost.words }}</router-link
            >
          </p>
          <p v-if="section.idle.length > 0">Nothing open for {{ names(section.idle) }}</p>
          <ToConfirm
            v-if="section.toConfirm.length > 0"
            :edition="edition"
            :section="section.id"
            :lessons="section.toConfirm"
            :can-change="today.data.value.canChange"
          />
          <ToCheck :checks="section.toCheck" :edition="edition" />
          <p
            v-if="!section.waiting && section.idle.length + section.toConfirm.length + section.toCheck.length === 0"
            class="second"
          >
            nothing
          </p>
        </div>
      </section>
    </div>
  </main>
  <TitleBlock v-if="today.data.value" :edition="edition" :facts="facts" :can-change="today.data.value.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  min-height: 0;
}
.none {
  padding: var(--space-7) 0;
}
.days {
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-9);
}
.course {
  display: grid;
  gap: var(--space-3);
  padding-bottom: var(--space-7);
}
.section {
  display: grid;
  grid-template-columns: 240px 1fr 400px;
  gap: var(--space-8);
  padding: var(--space-6) 0 var(--space-7);
  border-top: var(--stroke-hair) solid var(--ink);
}
/* Where there is room the sections stand side by side. */
@media (min-width: 1700px) {
  .days {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(420px, 1fr));
    gap: 0 var(--space-8);
    align-content: start;
  }
  .course,
  .changed {
    grid-column: 1 / -1;
  }
  .section {
    grid-template-columns: 1fr;
    align-content: start;
    gap: var(--space-6);
  }
}
.section header {
  display: grid;
  align-content: start;
  gap: var(--space-2);
}
.section > div {
  display: grid;
  align-content: start;
  gap: var(--space-3);
}
.date {
  display: flex;
  gap: var(--space-5);
  padding: var(--space-1) 0;
}
.date a {
  text-decoration-color: var(--hair);
}
.when {
  flex: none;
  width: 128px;
  color: var(--ink-2);
}
.code {
  color: var(--ink-2);
}
.changed {
  padding-bottom: var(--space-7);
}
.line {
  display: flex;
  justify-content: space-between;
}
</style>
