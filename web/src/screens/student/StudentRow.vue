<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import StateMark from '../../look/marks/StateMark.vue'
import OwnWhy from './OwnWhy.vue'
import { progressWords, stateMarks, stateWords } from './words'
import { useStudentLinks } from './useStudentLinks'

/** One item as one line, with its reason. */
const props = defineProps<{
  row: Schemas['StudentRow']
  edition?: number
  section: number
  when: 'due' | 'opens'
  withTeacher?: boolean
}>()

const links = useStudentLinks(props)
const isAsked = ref(false)
</script>

<template>
  <li class="row">
    <StateMark :state="stateMarks[row.state] ?? 'open'" alone />
    <span class="code">{{ row.code }}</span>
    <span class="what">
      <router-link v-if="row.canOpen" :to="links.item(row.item)" class="title">{{ row.title }}</router-link>
      <span v-else class="title">{{ row.title }}</span>
      <span v-if="row.missing.length" class="small"
        >{{ row.state === 'upcoming' ? 'And only when' : 'Opens when' }} {{ row.missing.join(', and ') }}.<template
          v-if="withTeacher"
        >
          Your teacher has it.</template
        ></span
      >
      <span v-else-if="row.state === 'locked'" class="small">A condition is not met yet.</span>
      <span v-else-if="progressWords[row.progress]" class="small">{{ progressWords[row.progress] }}</span>
      <span v-else-if="row.state === 'excused' || row.state === 'withdrawn'" class="small">{{
        stateWords[row.state]
      }}</span>
      <span v-if="row.state === 'locked' || (row.state === 'upcoming' && row.missing.length)" class="small">
        <button type="button" class="word-button" :aria-expanded="isAsked" @click="isAsked = !isAsked">
          why<span class="said-only">: {{ row.code }} {{ row.title }}</span>
        </button>
      </span>
      <OwnWhy v-if="isAsked" :section="section" :item="row.item" :edition="edition" below />
    </span>
    <span v-if="when === 'due' && row.due" class="when">
      <span :class="{ accent: row.state === 'overdue' }">
        {{ row.state === 'overdue' || row.beforeJoining ? 'was due' : 'due' }} {{ row.due.words }}
      </span>
      <span class="small">{{ row.beforeJoining ? 'before you joined' : row.dueRelative }}</span>
    </span>
    <span v-else-if="when === 'opens' && row.opens && row.state === 'upcoming'" class="when">
      <span>opens {{ row.opens.words }}</span>
      <span class="small">{{ row.opensRelative }}</span>
    </span>
    <span v-else class="when small">{{ row.kind === 'page' || row.kind === 'link' ? 'to read' : row.kind }}</span>
  </li>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 20px 48px 1fr auto;
  align-items: baseline;
  gap: var(--space-2) var(--space-4);
  padding: var(--space-4) 0;
}
.code {
  color: var(--ink-2);
}
.what {
  display: grid;
  gap: var(--space-1);
}
.what button {
  min-width: 24px;
  padding-block: var(--space-2);
}
.title {
  font-weight: 600;
  text-decoration: none;
}
a.title:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
span.title {
  font-weight: 450;
}
.when {
  display: grid;
  justify-items: end;
  text-align: right;
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 20px 44px 1fr;
  }
  .when {
    grid-column: 3;
    justify-items: start;
    text-align: left;
  }
}
</style>
