<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { spokenDate } from '../../foundation/dates/typedDate'
import { useSchoolDays } from '../../foundation/dates/schoolDays'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted, joined } from '../../foundation/words'
import CodesPanel from './CodesPanel.vue'
import PlacesPanel from './PlacesPanel.vue'

/** Who is in a section: since when, in which others, and what is different for them. */
const props = defineProps<{ edition: number; section: number }>()

type Line = Schemas['ListedLine']
const levels = useLevels()
const school = useSchoolDays()
const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.classLists(props.edition, viewpoint.query.value))
const list = computed(() => answer.data.value?.sections.find((one) => one.section === props.section))
const lines = computed(() => list.value?.students ?? [])
const here = computed(() => lines.value.filter((line) => !line.left))
const canChange = computed(() => answer.data.value?.canChange ?? false)
const chosen = ref<number[]>([])
const joining = ref(false)
const codesShown = ref(false)
const said = (date: string) => spokenDate(date, school.value)
const when = (line: Line) =>
  [
    line.from && line.from > school.value.first ? `since ${said(line.from)}` : '',
    line.to && line.to < school.value.last ? `${line.left ? 'left' : 'until'} ${said(line.to)}` : '',
  ]
    .filter(Boolean)
    .join(' ')
const also = (line: Line) =>
  line.alsoIn.length === 0
    ? ''
    : `also in ${joined(line.alsoIn)}: ${line.home ? `${line.home} is the home section` : 'say which is the home section'}`
const different = (line: Line) =>
  [
    line.differs.length > 0 ? `${levels.value.item.counted(line.differs.length)} different` : '',
    line.agreed ? 'more time for everything' : '',
  ]
    .filter(Boolean)
    .join(', ')
function close(): void {
  chosen.value = []
  joining.value = false
}
</script>

<template>
  <div class="all">
    <p v-if="answer.problem.value" class="second none">{{ answer.problem.value.title }}</p>
    <p v-else-if="!answer.data.value" class="second none" role="status">Reading the class list …</p>
    <p v-else-if="!list" class="second none">You do not teach this section, so its class list is not yours to read.</p>
    <template v-else>
      <p class="line head">
        <span class="second">
          {{ counted(here.length, 'student') }}. Tick some to move them; press a name for more.
        </span>
        <span v-if="canChange" class="acts">
          <button type="button" class="word-button" @click="joining = true">have students join</button>
          <button type="button" class="word-button" :aria-expanded="codesShown" @click="codesShown = !codesShown">
            section codes
          </button>
        </span>
      </p>
      <CodesPanel
        v-if="canChange && codesShown"
        :edition="edition"
        :section="section"
        :name="list.name"
        :last="school.last"
        :today="answer.data.value.today"
        @close="codesShown = false"
      />
      <p v-if="lines.length === 0" class="second none">
        No student is in {{ list.name }} yet. The office brings them from a roster; or have them join, by their mail
        addresses or with a section code.
      </p>
      <table v-else class="text-rows tight">
        <tbody>
          <tr v-for="line in lines" :key="`${line.student} ${line.from}`" :class="{ left: line.left }">
            <td class="pick">
              <v-checkbox
                v-if="canChange && !line.left"
                v-model="chosen"
                :value="line.student"
                :aria-label="`Choose ${line.name}`"
              />
            </td>
            <th scope="row">
              <router-link
                :to="{
                  name: 'one-student',
                  params: { edition, student: line.student },
                  query: { ...viewpoint.query.value, section },
                }"
                >{{ line.name }}</router-link
              >
            </th>
            <td class="small">{{ when(line) }}</td>
            <td class="small" :class="{ accent: line.alsoIn.length > 0 && !line.home }">{{ also(line) }}</td>
            <td class="small">{{ different(line) }}</td>
          </tr>
        </tbody>
      </table>
      <PlacesPanel
        v-if="canChange && (joining || chosen.length > 0)"
        :key="joining ? 'join' : 'chosen'"
        class="at-foot"
        :edition="edition"
        :section="section"
        :sections="answer.data.value.sections"
        :chosen="joining ? [] : chosen"
        @close="close"
      />
    </template>
  </div>
</template>

<style scoped>
table {
  width: 100%;
}
.none {
  padding: var(--space-5) 0;
}
.line {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
}
.head {
  padding: var(--space-4) 0;
}
.acts {
  display: flex;
  flex: none;
  gap: var(--space-6);
  margin-left: auto;
}
.pick {
  width: 34px;
}
.left a {
  color: var(--ink-2);
}
</style>
