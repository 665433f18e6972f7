<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useLevels } from '../../foundation/levels'
import { useViewpoint } from '../../foundation/useViewpoint'
import ProblemNote from '../../parts/ProblemNote.vue'
import WhyPanel from '../../parts/why/WhyPanel.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import AgreedTime from './AgreedTime.vue'
import CatchUpList from './CatchUpList.vue'
import MoveTable from './MoveTable.vue'
import StudentItems from './StudentItems.vue'
import StudentPlaces from './StudentPlaces.vue'

/** One student: where they are listed, how everything stands for them, and what is different for them alone. */
const props = defineProps<{ edition: number; student: number }>()

const levels = useLevels()
const route = useRoute()
const router = useRouter()
const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.oneStudent(props.edition, props.student, viewpoint.query.value))
const one = computed(() => answer.data.value)
const canChange = computed(() => one.value?.canChange ?? false)
/** What is shown in place of the list: it stands in the address. */
const shows = computed(() =>
  canChange.value && (route.query.shows === 'catch-up' || route.query.shows === 'move') ? route.query.shows : 'items',
)
const show = (what: string | undefined) =>
  router.replace({ query: { ...route.query, shows: what === 'items' ? undefined : what } })
/** The item that is asked about, in the address: a colleague can be sent there. */
const asked = computed(() => Number(route.query.why) || null)
const ask = (item: number | null) => router.replace({ query: { ...route.query, why: item ?? undefined } })
const different = computed(() => one.value?.items.filter((item) => item.differs.length > 0).length ?? 0)
const now = computed(() => one.value?.places.find((place) => place.isNow))
const facts = computed(() => [
  levels.value.item.counted(one.value?.items.length ?? 0),
  different.value === 0 ? 'nothing is different for them' : `${different.value} different for them`,
])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="answer.problem.value && !one" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!one" class="second" role="status">Reading about the student …</p>
    <div v-else class="two">
      <section v-if="asked !== null" class="own" tabindex="0" aria-label="Why, and what would open it">
        <WhyPanel :key="asked" :edition="edition" :student="student" :item="asked" @close="ask(null)" />
      </section>
      <section v-else class="own" tabindex="0" aria-label="Sections, and what is agreed">
        <StudentPlaces :edition="edition" :one="one" @move="show('move')" />
        <template v-if="one.catchUp > 0">
          <p class="ruled-head further">Catching up</p>
          <p class="said">
            {{ levels.item.counted(one.catchUp) }} {{ one.catchUp === 1 ? 'was' : 'were' }} due before they joined, or
            {{ one.catchUp === 1 ? 'is' : 'are' }} needed for what comes. None of it is overdue for them.
            <button
              v-if="canChange && shows !== 'catch-up'"
              type="button"
              class="word-button"
              @click="show('catch-up')"
            >
              propose a catch-up
            </button>
          </p>
        </template>
        <AgreedTime :key="one.agreed?.version ?? 0" :edition="edition" :one="one" />
      </section>
      <section class="list" tabindex="0" :aria-label="one.name">
        <p class="ruled-head head">
          <b>{{ one.name }}</b>
          <router-link
            v-if="now"
            class="small"
            :to="{
              name: 'seen',
              params: { edition, section: now.section },
              query: { ...viewpoint.query.value, as: `student:${student}`, section: now.section },
            }"
            >see what they see</router-link
          >
        </p>
        <CatchUpList
          v-if="shows === 'catch-up'"
          :edition="edition"
          :student="student"
          :name="one.name"
          :term="one.term"
          @close="show('items')"
        />
        <MoveTable v-else-if="shows === 'move'" :edition="edition" :one="one" @close="show('items')" />
        <StudentItems v-else :edition="edition" :one="one" :asked="asked" @why="ask" />
      </section>
    </div>
  </main>
  <TitleBlock v-if="one" :edition="edition" :facts="facts" :can-change="canChange" />
</template>

<style scoped>
.body {
  display: grid;
  min-height: 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 340px;
  gap: var(--space-9);
  min-height: 0;
}
/* Few things stand beside the list, and come before it for whoever goes by keys. */
.own {
  grid-area: 1 / 2;
}
.list {
  grid-area: 1 / 1;
}
.list,
.own {
  position: relative;
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-9);
}
.head {
  display: flex;
  align-items: baseline;
  gap: var(--space-7);
}
.head b {
  font-weight: 650;
}
.further {
  padding-top: var(--space-8);
}
.said {
  padding: var(--space-4) 0;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: 1fr;
  }
  .own,
  .list {
    grid-area: auto;
  }
}
</style>
