<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useQueryClient } from '@tanstack/vue-query'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useLevels } from '../../foundation/levels'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import TickField from '../../parts/fields/TickField.vue'
import ForStudentPanel from '../../parts/ForStudentPanel.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import WhyLink from '../../parts/why/WhyLink.vue'

/** Who of a section has not handed in what they could; some of them are reminded, given more time or excused. */
const props = defineProps<{ edition: number; section: Schemas['WorkSection']; canChange: boolean }>()

const client = useQueryClient()
const levels = useLevels()
const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.missing(props.edition, props.section.section, viewpoint.query.value))
const items = computed(() => answer.data.value?.items ?? [])
/** The item whose students are chosen, and who of them. */
const at = ref<number | null>(null)
const current = computed(() => items.value.find((one) => one.item === at.value) ?? items.value[0])
const chosen = ref<number[]>([])
/** Those who are late are chosen to begin with. */
watch(
  () => current.value?.item,
  () => (chosen.value = (current.value?.students ?? []).filter((one) => one.isOverdue).map((one) => one.student)),
  { immediate: true },
)
const those = computed(() => (current.value?.students ?? []).filter((one) => chosen.value.includes(one.student)))
const isOther = ref(false)
const problem = ref<Problem | null>(null)
const sentence = ref('')
const busy = ref(false)

const request = computed(() => ({ item: current.value!.item, students: those.value.map((one) => one.student) }))
const post = (preview: boolean) =>
  ask(
    api.POST('/api/sections/{section}/remind-students', {
      params: { path: { section: props.section.section }, query: { preview }, header: preview ? {} : once() },
      body: request.value,
    }),
  )
watch(
  () => JSON.stringify(those.value.map((one) => one.student)) + current.value?.item,
  async () => {
    sentence.value = ''
    problem.value = null
    if (those.value.length && answer.data.value?.canRemind)
      sentence.value = await post(true).then(
        (shown) => shown.sentence,
        (error) => problemOf(error).title,
      )
  },
  { immediate: true },
)

async function remind(): Promise<void> {
  busy.value = true
  try {
    sentence.value = `Done. ${(await post(false)).sentence}`
    await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
  } catch (error) {
    problem.value = problemOf(error)
  } finally {
    busy.value = false
  }
}

const lateOf = (one: Schemas['MissingItem']) => one.students.filter((student) => student.isOverdue).length
function state(one: Schemas['MissingStudent']): string {
  const when = one.isOverdue ? 'was due' : one.again ? 'first due' : 'due'
  const due = one.due ? `${when} ${one.due.words}` : 'no due date'
  return [one.again ? 'to try again' : one.begun ? 'begun' : '', due, one.reminded ? 'reminded today' : '']
    .filter(Boolean)
    .join(' · ')
}
</script>

<template>
  <p v-if="!answer.data.value" class="second" role="status">
    {{ answer.problem.value?.title ?? 'Reading who has not handed in …' }}
  </p>
  <p v-else-if="!current" class="second">Everyone in {{ section.name }} has handed in everything they can so far.</p>
  <div v-else class="split">
    <ul class="ruled list" tabindex="0" :aria-label="`Not handed in, by ${levels.item.one}`">
      <li v-for="one in items" :key="one.item">
        <button type="button" :aria-current="one.item === current.item ? 'true' : undefined" @click="at = one.item">
          <span class="small">{{ one.code }}</span>
          <span class="what">{{ one.title }}</span>
          <span class="small" :class="{ accent: lateOf(one) }">{{
            lateOf(one) ? `${lateOf(one)} overdue` : `${one.students.length} of ${one.of}`
          }}</span>
        </button>
      </li>
    </ul>
    <section :aria-label="`Who has not handed in ${current.title}`">
      <h2>{{ current.code }} {{ current.title }}</h2>
      <p class="second">
        {{ current.students.length }} of {{ current.of }} in {{ section.name }} have not handed it in.
      </p>
      <ul class="ruled">
        <li v-for="one in current.students" :key="one.student" class="student">
          <TickField v-if="canChange" v-model="chosen" :value="one.student" :label="one.name" />
          <span v-else>{{ one.name }}</span>
          <span class="small state" :class="{ accent: one.isOverdue }">{{ state(one) }}</span>
          <WhyLink class="small" :edition="edition" :student="one.student" :item="current.item" :name="one.name" />
        </li>
      </ul>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="canChange" class="ways">
        <v-btn v-if="answer.data.value.canRemind" class="meant" :disabled="!those.length || busy" @click="remind"
          >Remind {{ counted(those.length, 'student') }}</v-btn
        >
        <v-btn :disabled="!those.length" :aria-expanded="isOther" @click="isOther = !isOther"
          >More time, excused …</v-btn
        >
        <span class="small" role="status">{{ sentence }}</span>
      </p>
      <ForStudentPanel
        v-if="isOther && those.length"
        :key="those.map((one) => one.student).join()"
        :edition="edition"
        :students="those.map((one) => one.student)"
        :name="those.length === 1 ? those[0]!.name : counted(those.length, 'student')"
        :items="[{ id: current.item, title: `${current.code} ${current.title}`, differs: [] }]"
        @close="isOther = false"
      />
    </section>
  </div>
</template>

<style scoped>
.split {
  display: grid;
  grid-template-columns: 400px 1fr;
  gap: var(--space-9);
  min-height: 0;
}
.split > * {
  min-height: 0;
  overflow: auto;
}
.split > section {
  display: grid;
  gap: var(--space-4);
  align-content: start;
  max-width: 720px;
  padding: var(--space-6) 0 var(--space-8);
}
.list button {
  display: grid;
  grid-template-columns: 48px minmax(0, 1fr) auto;
  align-items: baseline;
  gap: var(--space-3);
  width: 100%;
  padding: var(--space-3) var(--space-4);
  border-left: var(--stroke-strong) solid transparent;
}
.list [aria-current] {
  background: var(--sheet);
  border-color: var(--accent);
}
.what {
  font-weight: 600;
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
.student {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--space-5);
}
.state {
  flex: 1;
  text-align: right;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
