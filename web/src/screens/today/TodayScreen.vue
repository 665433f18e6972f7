<script setup lang="ts">
import { computed } from 'vue'
import { api, once } from '../../foundation/api/client'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import { useWhyKey } from '../../parts/why/useWhyKey'
import ChangedByOthers from './ChangedByOthers.vue'
import ToCheck from './ToCheck.vue'
import TodaySection from './TodaySection.vue'
import { questions } from '../../foundation/api/questions'

/** What needs me? Section by section, on the moment's day and in the week ahead. */
const props = defineProps<{ edition: number }>()
const levels = useLevels()

useWhyKey()
const viewpoint = useViewpoint()
const today = useAnswer(() => questions.today(props.edition, viewpoint.query.value), { refetchInterval: 60_000 })
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
</script>

<template>
  <main class="body">
    <ProblemNote
      v-if="today.problem.value && !today.data.value"
      :problem="today.problem.value"
      :again="today.refetch"
    />
    <p v-else-if="!today.data.value" class="second" role="status">Reading the day …</p>
    <p v-else-if="today.data.value.sections.length === 0" class="second none">
      This edition has no section yet, so nothing meets and nothing is due. Add a section in the outline.
    </p>
    <div v-else class="days" tabindex="0" aria-label="The day, section by section">
      <section v-if="today.data.value.course.length > 0" class="course" aria-label="To check in the course">
        <p class="ruled-head small">To check in the course itself</p>
        <ToCheck :checks="today.data.value.course" :edition="edition" />
      </section>
      <ChangedByOthers
        v-if="today.data.value.changed.length > 0"
        class="changed"
        :changes="today.data.value.changed"
        :can-change="today.data.value.canChange"
        @seen="look"
      />
      <TodaySection
        v-for="section in today.data.value.sections"
        :key="section.id"
        class="section"
        :edition="edition"
        :section="section"
        :moment="today.data.value.moment.local"
        :can-change="today.data.value.canChange"
      />
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
@media (max-width: 900px) {
  .section {
    grid-template-columns: 1fr;
  }
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
.changed {
  padding-bottom: var(--space-7);
}
</style>
