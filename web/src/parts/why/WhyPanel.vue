<script setup lang="ts">
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import ForStudentPanel from '../ForStudentPanel.vue'
import ProblemNote from '../ProblemNote.vue'
import ConditionLines from './ConditionLines.vue'
import DatePath from './DatePath.vue'
import RowChecks from './RowChecks.vue'
import SectionMend from './SectionMend.vue'

/** Why one student can or cannot see an item: what stands in the way, where it comes from, and what would open it. */
const props = defineProps<{ edition: number; student: number; item: number }>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.why(props.edition, props.student, props.item, viewpoint.query.value))
const why = computed(() => answer.data.value)
const isOpen = computed(() => why.value?.state === 'open' || why.value?.state === 'overdue')
const panel = useTemplateRef<HTMLElement>('panel')
/** Whoever asked by keys goes on from here. */
onMounted(() => panel.value?.focus())
const mending = ref<Schemas['WhyMend'] | null>(null)
watch(
  () => [props.student, props.item],
  () => (mending.value = null),
)
const mends = computed(() => (why.value?.mends.length ? why.value.mends : (why.value?.together ?? [])))
const onlyTogether = computed(() => !why.value?.mends.length && (why.value?.together.length ?? 0) > 0)
const isDoneHere = (mend: Schemas['WhyMend']) => mend.kind === 'open-for-student' || mend.changes.length > 0

/** Where something is done that is not done here. */
function placeOf(mend: Schemas['WhyMend']) {
  const params = { edition: props.edition }
  const at = viewpoint.query.value
  if (mend.row) return { name: 'outline', params, query: { ...at, row: mend.row } }
  if (mend.items[0] === undefined) return null
  const piece = { section: why.value?.section?.id, item: mend.items[0], student: props.student }
  return { name: 'work', params, query: { ...at, ...piece } }
}
</script>

<template>
  <section ref="panel" class="why" tabindex="-1" aria-label="Why" @keydown.esc.stop.prevent="emit('close')">
    <p class="ruled-head head">
      <span>Why</span>
      <button type="button" class="word-button" @click="emit('close')">close</button>
    </p>
    <ProblemNote v-if="answer.problem.value && !why" :problem="answer.problem.value" :again="answer.refetch" />
    <p v-else-if="!why" class="second" role="status">Finding out why …</p>
    <template v-else>
      <h2 class="what">
        <span class="code">{{ why.code }}</span> {{ why.title }}
      </h2>
      <p class="small second">
        for {{ why.name }}<template v-if="why.section"> in {{ why.section.name }}</template
        >, {{ why.at.words }}
      </p>
      <p v-if="isOpen" class="first">{{ why.since }}</p>
      <template v-else>
        <p class="first">{{ why.inTheWay[0] }}</p>
        <ul v-if="why.inTheWay.length > 1" class="ruled more" aria-label="Also in the way">
          <li v-for="one in why.inTheWay.slice(1)" :key="one">{{ one }}</li>
        </ul>
        <p v-if="why.staysReadable" class="small">
          {{ why.name }} has begun it, and can still read it and what they wrote.
        </p>
        <p v-if="why.since" class="small">{{ why.since }}</p>
      </template>

      <template v-if="mends.length">
        <h3>{{ onlyTogether ? 'To open it, all of this' : 'To open it' }}</h3>
        <ul class="ruled" aria-label="What would open it">
          <li v-for="mend in mends" :key="mend.kind" class="mend">
            <span>{{ mend.words }}</span>
            <button
              v-if="why.canChange && isDoneHere(mend)"
              type="button"
              class="word-button"
              :aria-label="`do it: ${mend.words}`"
              :aria-expanded="mending?.kind === mend.kind"
              @click="mending = mending?.kind === mend.kind ? null : mend"
            >
              do it …
            </button>
            <router-link v-else-if="why.canChange && placeOf(mend)" :to="placeOf(mend)!">{{
              mend.kind === 'give-back' ? 'read it' : 'change it'
            }}</router-link>
          </li>
        </ul>
      </template>
      <ForStudentPanel
        v-if="mending?.kind === 'open-for-student'"
        :edition="edition"
        :students="[student]"
        :name="why.name"
        :items="[{ id: item, title: why.title, differs: [] }]"
        first="open"
        @close="mending = null"
      />
      <SectionMend
        v-else-if="mending"
        :key="mending.kind"
        :edition="edition"
        :mend="mending"
        :section="why.section?.name ?? ''"
        @close="mending = null"
      />

      <RowChecks :edition="edition" :row="`item-${item}`" />
      <template v-for="condition in why.conditions" :key="condition.on">
        <h3>The condition on {{ condition.on }}</h3>
        <ConditionLines :condition="condition" />
      </template>
      <template v-if="why.dates.length">
        <h3>Where its dates come from</h3>
        <DatePath v-for="date in why.dates" :key="date.what" :date="date" />
      </template>
      <p v-if="why.quizTime !== null" class="small">It lasts {{ why.quizTime }} % longer for {{ why.name }}.</p>
    </template>
  </section>
</template>

<style scoped>
.why {
  display: grid;
  align-content: start;
  gap: var(--space-3);
}
.head {
  display: flex;
  justify-content: space-between;
}
.what {
  font-size: 1rem;
  font-weight: 650;
}
.code {
  color: var(--ink-2);
  font-variant-numeric: tabular-nums;
}
.first {
  padding-left: var(--space-4);
  border-left: var(--stroke-strong) solid var(--accent);
}
h3 {
  font-size: 0.875rem;
  font-weight: 650;
  padding-top: var(--space-5);
}
.mend {
  display: flex;
  justify-content: space-between;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
.mend :is(button, a) {
  flex: none;
}
</style>
