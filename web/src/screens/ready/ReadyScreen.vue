<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import SectionKey from '../../look/marks/SectionKey.vue'
import { placeOf } from '../../parts/why/mends'

/** Is it ready? What is missing or wrong in one section before students come to it, each with where it is mended. */
const props = defineProps<{ edition: number; section: number }>()
const levels = useLevels()

const route = useRoute()
const viewpoint = useViewpoint()
const term = ref(false)
const perDay = ref<number | null>(3)
const answer = useAnswer(() =>
  questions.ready(props.edition, props.section, { term: term.value, perDay: perDay.value ?? 3 }, viewpoint.query.value),
)
const ready = computed(() => answer.data.value ?? null)
const sections = useAnswer(() => questions.outline(props.edition, viewpoint.query.value))
const checks = computed(() => (ready.value?.groups ?? []).reduce((sum, group) => sum + group.checks.length, 0))
const facts = computed(() => [
  ready.value?.name ?? '',
  checks.value === 0 ? 'everything is ready' : `${checks.value} to mend`,
])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="answer.problem.value && !ready" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!ready" class="second none" role="status">Checking what is coming up …</p>
    <template v-else>
      <div class="tools">
        <span class="sections" role="group" aria-label="Section">
          <router-link
            v-for="one in sections.data.value?.sections ?? []"
            :key="one.id"
            :to="{ name: 'ready', params: { edition, section: one.id }, query: route.query }"
            :class="{ here: one.id === section }"
            :aria-current="one.id === section ? 'page' : undefined"
            ><SectionKey :letter="one.letter" :name="one.name"
          /></router-link>
        </span>
        <OneOfField
          v-model="term"
          label="How far"
          :choices="[
            { value: false, title: 'the next two weeks' },
            { value: true, title: 'the whole term' },
          ]"
        />
        <span class="line">
          <span class="second">too much on one day: more than</span>
          <NumberField v-model="perDay" label="Dues on one day" :min="1" :max="20" />
          <span class="second">dues</span>
        </span>
      </div>
      <div class="page" tabindex="-1">
        <p class="lead" role="status">
          {{ levels.item.counted(ready.items) }} {{ ready.items === 1 ? 'opens or is' : 'open or are' }} due in
          {{ ready.name }} until {{ ready.until.words }}.
          {{ checks === 0 ? 'Nothing is missing.' : `To mend: ${checks}.` }}
        </p>
        <section v-for="group in ready.groups" :key="group.title" :aria-label="group.title">
          <h2 class="ruled-head">
            {{ group.title }} <span class="second">{{ group.checks.length }}</span>
          </h2>
          <ul class="ruled">
            <li v-for="check in group.checks" :key="check.words">
              <span>{{ check.words }}</span>
              <router-link
                v-if="placeOf(check.mend, edition, viewpoint.query.value)"
                :to="placeOf(check.mend, edition, viewpoint.query.value)!"
                :aria-label="`${check.mend.words}: ${check.words}`"
                >{{ check.mend.words }}</router-link
              >
              <span v-else class="small">{{ check.mend.words }}</span>
            </li>
          </ul>
        </section>
      </div>
    </template>
  </main>
  <TitleBlock v-if="ready" :edition="edition" :facts="facts" :can-change="false" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
}
.none {
  padding: var(--space-7) 0;
}
.tools,
.sections,
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-6);
}
.tools {
  padding: var(--space-4) 0;
}
.sections a {
  text-decoration: none;
  opacity: 0.6;
}
.sections a.here {
  opacity: 1;
  border-bottom: var(--stroke-strong) solid var(--accent);
}
.page {
  display: grid;
  gap: var(--space-7);
  align-content: start;
  overflow: auto;
  max-width: 110ch;
  padding-bottom: var(--space-9);
}
.lead {
  font-size: var(--size-large);
}
.ruled > li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-6);
  padding: var(--space-3) 0;
}
.ruled > li > :last-child {
  white-space: nowrap;
}
</style>
