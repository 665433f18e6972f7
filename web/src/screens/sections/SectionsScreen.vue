<script setup lang="ts">
import { capital, useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import ClassPanel from './ClassPanel.vue'
import ClassesHere from './ClassesHere.vue'
import GroupsHere from './groups/GroupsHere.vue'
import HerePanel from './HerePanel.vue'
import LessonsHere from './LessonsHere.vue'
import LostPanel from './lost/LostPanel.vue'
import SectionChoice from './SectionChoice.vue'
import SectionFacts from './SectionFacts.vue'
import StopFollowing from './StopFollowing.vue'
import StudentsHere from './StudentsHere.vue'
import MadeUpStudents from './pretend/MadeUpStudents.vue'
import NewPretendSection from './pretend/NewPretendSection.vue'
import TimetablePanel from './TimetablePanel.vue'
import { useSectionsScreen } from './useSectionsScreen'

/** When does each section meet, in which order does it go, and what does it do differently from the course? */
const props = defineProps<{ edition: number }>()
const levels = useLevels()
const {
  pace,
  sections,
  again,
  problem,
  open,
  shows,
  inView,
  card,
  line,
  canChange,
  place,
  wanted,
  facts,
  choose,
  chooseNamed,
  show,
} = useSectionsScreen(props)
</script>

<template>
  <main class="body">
    <ProblemNote v-if="problem && !(card && line)" :problem="problem" :again="again" />
    <p v-else-if="!sections.data.value || !pace.data.value" class="second" role="status">Reading the sections …</p>
    <template v-else-if="!card || !line">
      <p class="second none">
        No section follows this course yet. Sections come to follow it in the outline; until then it can be tried with
        nobody in it.
        <button v-if="canChange" type="button" class="word-button" @click="open = 'pretend'">
          add a pretend section
        </button>
      </p>
      <NewPretendSection
        v-if="canChange && open === 'pretend'"
        :edition="edition"
        :answer="sections.data.value"
        @close="open = null"
        @made="chooseNamed"
      />
    </template>
    <template v-else>
      <SectionChoice
        :sections="pace.data.value.sections"
        :unit="pace.data.value.unit"
        :chosen="card.id"
        @choose="choose"
      />
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
            <button type="button" class="tab" :aria-pressed="shows === 'students'" @click="show('students')">
              Students
            </button>
            <button
              v-if="!card.pretend"
              type="button"
              class="tab"
              :aria-pressed="shows === 'groups'"
              @click="show('groups')"
            >
              Groups
            </button>
          </p>
          <ClassesHere
            v-if="shows === 'classes'"
            v-model="inView"
            :section="line"
            :can-change="canChange"
            @want="(what) => (open = { wanted: what })"
          />
          <MadeUpStudents
            v-else-if="shows === 'students' && card.pretend"
            :key="`${card.id} made up`"
            :edition="edition"
            :card="card"
            :can-change="canChange"
          />
          <StudentsHere v-else-if="shows === 'students'" :key="card.id" :edition="edition" :section="card.id" />
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
        <SectionFacts
          class="own"
          :edition="edition"
          :card="card"
          :can-change="canChange"
          @timetable="open = 'timetable'"
          @stop="open = 'stop'"
          @pretend="open = 'pretend'"
        />
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
        <StopFollowing
          v-else-if="open === 'stop'"
          :key="`${card.id} stop`"
          :edition="edition"
          :card="card"
          @close="open = null"
        />
        <NewPretendSection
          v-else-if="open === 'pretend'"
          :edition="edition"
          :answer="sections.data.value"
          @close="open = null"
          @made="chooseNamed"
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
.tab[aria-pressed='true'] {
  font-weight: 650;
}
.tab[aria-pressed='false'] {
  text-decoration: underline;
  text-decoration-color: var(--line);
  text-underline-offset: 3px;
}
</style>
