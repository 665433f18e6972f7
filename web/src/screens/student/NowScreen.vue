<script setup lang="ts">
import { computed } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import StudentRow from './StudentRow.vue'
import { useStudentLinks } from './useStudentLinks'

/** What now? What is open and what comes, in order; what is locked and what would open it; what came back. */
const props = defineProps<{ section: number; edition?: number }>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const now = useAnswer(
  computed(() => keys.ofSection(props.section, 'now', viewpoint.key.value)),
  () =>
    api.GET('/api/sections/{section}/now', {
      params: { path: { section: props.section }, query: viewpoint.query.value },
    }),
  // What opens by feedback opens without a sign: facts tell nobody.
  { refetchInterval: 20_000 },
)
const lists = computed(() => {
  const answer = now.data.value
  if (!answer) return []
  return [
    { key: 'now', title: 'Now', rows: answer.now, when: 'due' as const, none: 'Nothing is open that waits for you.' },
    { key: 'locked', title: 'Locked', rows: answer.locked, when: 'due' as const, none: '' },
    { key: 'next', title: 'Next', rows: answer.next, when: 'opens' as const, none: 'Nothing further is planned yet.' },
    { key: 'done', title: 'Done', rows: answer.done, when: 'due' as const, none: '' },
  ].filter((list) => list.rows.length > 0 || list.none)
})
</script>

<template>
  <main class="body">
    <ProblemNote v-if="now.problem.value && !now.data.value" :problem="now.problem.value" />
    <p v-else-if="!now.data.value" class="second" role="status">Reading …</p>
    <div v-else class="sheet-of-work">
      <header>
        <component :is="edition === undefined ? 'h1' : 'h2'" class="head">Now and next</component>
        <p class="second">{{ now.data.value.course }} · {{ now.data.value.section }}</p>
        <p class="second">{{ now.data.value.moment.words }}</p>
      </header>
      <div class="columns">
        <div>
          <section v-for="list in lists.slice(0, 2)" :key="list.key" :aria-label="list.title">
            <h2 class="list-head">{{ list.title }}</h2>
            <p v-if="list.rows.length === 0" class="second none">{{ list.none }}</p>
            <ul class="ruled">
              <StudentRow
                v-for="row in list.rows"
                :key="row.item"
                :row="row"
                :edition="edition"
                :section="section"
                :when="list.when"
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
                <span class="small">{{ row.again ? 'try again' : 'go on' }}, {{ row.at.words }}, {{ row.by }}</span>
                <q v-if="row.begins">{{ row.begins }}</q>
              </li>
            </ul>
          </section>
          <section v-for="list in lists.slice(2)" :key="list.key" :aria-label="list.title">
            <h2 class="list-head">{{ list.title }}</h2>
            <p v-if="list.rows.length === 0" class="second none">{{ list.none }}</p>
            <ul class="ruled">
              <StudentRow
                v-for="row in list.rows"
                :key="row.item"
                :row="row"
                :edition="edition"
                :section="section"
                :when="list.when"
              />
            </ul>
          </section>
        </div>
      </div>
    </div>
  </main>
</template>

<style scoped>
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
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
