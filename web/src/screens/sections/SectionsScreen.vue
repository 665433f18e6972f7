<script setup lang="ts">
import { computed, ref } from 'vue'
import { api } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useScreenKeys } from '../../foundation/useKeys'
import { useViewpoint } from '../../foundation/useViewpoint'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import { standing } from '../pace/paceLines'
import ClassPanel from './ClassPanel.vue'
import PutBack from './PutBack.vue'
import { type Wanted, comingFirst } from './classes'

/** When does each section meet? Its classes with what is taught in them, and what it changes in its timetable. */
const props = defineProps<{ edition: number }>()

const viewpoint = useViewpoint()
const pace = useAnswer(
  computed(() => keys.ofEdition(props.edition, 'pace', viewpoint.key.value)),
  () =>
    api.GET('/api/editions/{edition}/pace', {
      params: { path: { edition: props.edition }, query: viewpoint.query.value },
    }),
)
const chosen = ref<number | null>(null)
const withPast = ref(false)
const wanted = ref<Wanted | null>(null)
const sections = computed(() => pace.data.value?.sections ?? [])
const section = computed(() => sections.value.find((one) => one.id === chosen.value) ?? sections.value[0])
const classes = computed(() => (section.value ? comingFirst(section.value.classes, withPast.value) : []))
const canChange = computed(() => pace.data.value?.canChange ?? false)
const facts = computed(() => [
  `${sections.value.length} sections`,
  section.value ? `${section.value.classes.length} classes of ${section.value.name}` : '',
])

function choose(id: number): void {
  chosen.value = id
  wanted.value = null
}

useScreenKeys([{ key: 'Escape', words: 'close the class, unchanged', run: () => (wanted.value = null) }])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="pace.problem.value && !pace.data.value" :problem="pace.problem.value" />
    <p v-else-if="!pace.data.value" class="second" role="status">Reading the sections …</p>
    <p v-else-if="!section" class="second none">
      No section follows this edition yet. Let one follow it in the outline, or roll over into a term with sections.
    </p>
    <template v-else>
      <nav class="choice" aria-label="Section">
        <button
          v-for="one in sections"
          :key="one.id"
          type="button"
          :aria-pressed="one.id === section.id"
          @click="choose(one.id)"
        >
          <SectionKey :letter="one.letter" :name="one.name" />
          <span class="small">{{ one.students }} students, {{ standing(one, pace.data.value.unit) }}</span>
        </button>
      </nav>
      <div class="two">
        <section class="list" tabindex="0" :aria-label="`Classes of ${section.name}`">
          <p class="ruled-head head">
            <span>{{ section.name }} meets {{ section.classes.length }} times</span>
            <label class="small"><input v-model="withPast" type="checkbox" /> those that are over, too</label>
            <button
              v-if="canChange"
              type="button"
              class="word-button"
              @click="wanted = { what: 'add', of: classes[0] ?? null }"
            >
              add a class
            </button>
          </p>
          <table>
            <tbody>
              <tr v-for="one in classes" :key="one.ordinal" :class="{ over: one.isOver }">
                <td class="number small">{{ one.ordinal }}</td>
                <td class="when">
                  {{ one.words }}–{{ one.end }}
                  <span v-if="one.counts > 1" class="small">counts {{ one.counts }}</span>
                  <span v-if="one.own" class="small"> own time</span>
                </td>
                <td class="lesson">{{ one.lesson || 'free' }}</td>
                <td v-if="canChange" class="does">
                  <button type="button" class="word-button" @click="wanted = { what: 'cancel', of: one }">
                    cancel
                  </button>
                  <button type="button" class="word-button" @click="wanted = { what: 'move', of: one }">move</button>
                </td>
              </tr>
            </tbody>
          </table>
          <p v-if="classes.length === 0" class="second none">No class is to come in this term.</p>
        </section>
        <section class="own">
          <p class="ruled-head">What differs from its timetable</p>
          <p v-if="section.changes.length === 0" class="second none">
            Nothing: it meets as its timetable says. A class that is cancelled, moved or added stands here and is put
            back with one click.
          </p>
          <ul>
            <li v-for="change in section.changes" :key="change.seq">
              <PutBack :edition="edition" :section="section.id" :change="change" :can-change="canChange" />
            </li>
          </ul>
        </section>
      </div>
      <ClassPanel
        v-if="wanted && canChange"
        :key="`${section.id} ${wanted.what} ${wanted.of?.ordinal}`"
        :edition="edition"
        :section="section"
        :wanted="wanted"
        @close="wanted = null"
      />
    </template>
  </main>
  <TitleBlock v-if="pace.data.value" :edition="edition" :facts="facts" :can-change="canChange" />
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
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-4) var(--space-8);
  padding-bottom: var(--space-6);
}
.choice button {
  display: grid;
  border-bottom: var(--stroke-strong) solid transparent;
}
.choice button[aria-pressed='true'] {
  border-color: var(--ink);
}
.two {
  display: grid;
  grid-template-columns: 1fr 360px;
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
  gap: var(--space-6);
}
.head span {
  flex: 1;
}
input[type='checkbox'] {
  accent-color: var(--ink);
  margin: 0 var(--space-2) 0 0;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  padding: var(--space-3) var(--space-5) var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
  vertical-align: baseline;
}
.number {
  width: 32px;
}
.when {
  white-space: nowrap;
}
.lesson {
  width: 55%;
}
.over {
  color: var(--ink-2);
}
.does {
  white-space: nowrap;
}
.does button + button {
  margin-left: var(--space-5);
}
.own li {
  padding: var(--space-4) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
</style>
