<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { counted } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'
import TickField from '../../../parts/fields/TickField.vue'

/** Who of a section has picked what; and picking for somebody. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()

const client = useQueryClient()
const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.picks(props.edition, props.item.id, viewpoint.query.value))
const sections = computed(() => answer.data.value?.sections ?? [])
const at = ref<number | null>(null)
const section = computed(() => sections.value.find((one) => one.section === at.value) ?? null)
const most = computed(() => answer.data.value?.picks ?? 1)
const groups = computed(() => {
  const read = section.value
  if (!read) return []
  return [
    ...read.options.map((one) => ({
      title: one.title,
      note: one.room === null ? '' : one.room === 0 ? 'full' : `room for ${one.room} more`,
      students: read.students.filter((student) => student.options.includes(one.option)),
      waiting: one.waiting,
    })),
    {
      title: 'nothing yet',
      note: '',
      students: read.students.filter((student) => student.options.length === 0),
      waiting: [],
    },
  ]
})

/** For whom something is picked, and what. */
const who = ref<Schemas['PicksLine'] | null>(null)
const wanted = ref<string[]>([])
const sentence = ref('')
const problem = ref<Problem | null>(null)
const busy = ref(false)
function pickFor(student: Schemas['PicksLine']): void {
  who.value = student
  wanted.value = [...student.options]
  sentence.value = ''
  problem.value = null
}
const post = (preview: boolean) =>
  ask(
    api.POST('/api/sections/{section}/pick-for-student', {
      params: { path: { section: section.value!.section }, query: { preview }, header: preview ? {} : once() },
      body: { item: props.item.id, student: who.value!.student, options: wanted.value },
    }),
  )
const isSame = computed(
  () => JSON.stringify([...wanted.value].sort()) === JSON.stringify([...(who.value?.options ?? [])].sort()),
)
const isTooMany = computed(() => wanted.value.length > most.value)
/** Of one that is picked alone, another takes its place. */
function want(option: string, isWanted: boolean): void {
  const only = most.value === 1
  wanted.value = isWanted ? (only ? [option] : [...wanted.value, option]) : wanted.value.filter((one) => one !== option)
}
watch(wanted, async () => {
  sentence.value = ''
  problem.value = null
  if (!who.value || isSame.value || isTooMany.value) return
  try {
    sentence.value = (await post(true)).sentence
  } catch (error) {
    problem.value = problemOf(error)
  }
})
async function pick(): Promise<void> {
  busy.value = true
  try {
    await post(false)
    who.value = null
    await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
  } catch (error) {
    problem.value = problemOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section v-if="sections.length" class="picks" aria-label="Who has picked what">
    <p class="line">
      <span class="second">Who has picked what:</span>
      <button
        v-for="one in sections"
        :key="one.section"
        type="button"
        class="word-button"
        :aria-pressed="one.section === section?.section"
        @click="((at = at === one.section ? null : one.section), (who = null))"
      >
        {{ one.name }}
      </button>
    </p>
    <template v-if="section">
      <dl class="groups">
        <template v-for="group in groups" :key="group.title">
          <dt>
            <b>{{ group.title }}</b>
            <span class="small">{{
              [counted(group.students.length, 'student'), group.note].filter(Boolean).join(', ')
            }}</span>
          </dt>
          <dd>
            <span v-if="group.students.length === 0" class="second">nobody</span>
            <button
              v-for="student in group.students"
              :key="student.student"
              type="button"
              class="word-button"
              :disabled="!canChange"
              :aria-expanded="who?.student === student.student"
              :title="student.by ? `picked by ${student.by}, ${student.at?.words}` : student.at?.words"
              @click="pickFor(student)"
            >
              {{ student.name }}
            </button>
            <span v-if="group.waiting.length" class="second waiting">in the queue: {{ group.waiting.join(', ') }}</span>
          </dd>
        </template>
      </dl>
      <form v-if="who" class="editor" :aria-label="`Pick for ${who.name}`" @submit.prevent="pick">
        <p class="line">
          <span>{{ who.name }} has</span>
          <TickField
            v-for="one in section.options"
            :key="one.option"
            :model-value="wanted.includes(one.option)"
            :label="one.title"
            @update:model-value="want(one.option, $event === true)"
          />
        </p>
        <ProblemNote v-if="problem" :problem="problem" />
        <p class="ways">
          <v-btn type="submit" class="meant" :disabled="isSame || isTooMany || busy">Pick for {{ who.name }}</v-btn>
          <v-btn @click="who = null">Leave it as it is</v-btn>
          <span class="small" role="status">{{ isTooMany ? `Only ${most} can be picked.` : sentence }}</span>
        </p>
      </form>
    </template>
  </section>
</template>

<style scoped>
.picks {
  display: grid;
  gap: var(--space-4);
}
[aria-pressed='true'] {
  font-weight: 600;
}
.groups {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: var(--space-3) var(--space-6);
}
dt {
  display: grid;
  align-content: start;
}
.waiting {
  flex-basis: 100%;
}
dd {
  display: flex;
  flex-wrap: wrap;
  align-content: start;
  gap: var(--space-2) var(--space-5);
}
</style>
