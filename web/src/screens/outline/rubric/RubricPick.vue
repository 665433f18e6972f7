<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useSend } from '../../../foundation/commands/useSend'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useLevels } from '../../../foundation/levels'
import { counted } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'
import WordField from '../../../parts/fields/WordField.vue'

/** The rubrics on one's shelf and of all one's courses, to take one over as it is. */
const props = defineProps<{ edition: number }>()
const emit = defineEmits<{ taken: [rubric: Schemas['RubricForm']]; close: [] }>()

const levels = useLevels()
const answer = useAnswer(() => questions.rubrics(props.edition))
const typed = ref('')
const found = computed(() => {
  const words = typed.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (answer.data.value ?? []).filter((one) => {
    const text = `${one.rubric.name} ${one.where} ${one.rubric.criteria.map((c) => c.title).join(' ')}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
})

// What was taken off the shelf last, to put it back.
const off = ref<Schemas['RubricForm'] | null>(null)
const changes = [keys.ofEdition(props.edition, 'rubrics', '')]
const header = (key: string) => ({ header: once(key) })
const takeOff = useSend(
  (kept: number, key: string) => ask(api.POST('/api/me/take-off-shelf', { body: { kept }, params: header(key) })),
  changes,
)
const putBack = useSend(
  (rubric: Schemas['RubricForm'], key: string) =>
    ask(api.POST('/api/me/keep-rubric', { body: { rubric }, params: header(key) })),
  changes,
)
const problem = computed(() => takeOff.problem.value ?? putBack.problem.value)

async function drop(one: Schemas['KnownRubric']): Promise<void> {
  if (await takeOff.run(one.kept!)) off.value = one.rubric
}
async function restore(): Promise<void> {
  if (await putBack.run(off.value!)) off.value = null
}
</script>

<template>
  <div class="pick">
    <p v-if="!answer.data.value" class="small" role="status">
      {{ answer.problem.value?.title ?? 'Reading the rubrics on your shelf and of your courses …' }}
    </p>
    <template v-else>
      <p class="line">
        <WordField v-model="typed" class="find" label="Find a rubric" placeholder="find by name, criterion or course" />
        <span class="small second">{{ counted(found.length, 'rubric', 'rubrics') }}</span>
      </p>
      <p v-if="off" class="line" role="status">
        <span>“{{ off.name }}” is off your shelf.</span>
        <button type="button" class="word-button" @click="restore">put it back</button>
      </p>
      <ProblemNote v-if="problem" :problem="problem" />
      <ul class="ruled list" tabindex="0" aria-label="Rubrics on your shelf and of your courses">
        <li v-for="(one, at) in found" :key="at">
          <span class="what">
            <strong>{{ one.rubric.name }}</strong>
            <span class="small second">{{ one.rubric.criteria.map((criterion) => criterion.title).join(' · ') }}</span>
          </span>
          <span class="small second"
            >{{ one.where }}<template v-if="one.items > 1">, {{ levels.item.counted(one.items) }}</template></span
          >
          <button
            v-if="one.kept !== null"
            type="button"
            class="word-button"
            :aria-label="`take it off: ${one.rubric.name}`"
            @click="drop(one)"
          >
            take it off
          </button>
          <button
            type="button"
            class="word-button use"
            :aria-label="`use ${one.rubric.name}`"
            @click="emit('taken', one.rubric)"
          >
            use
          </button>
        </li>
        <li v-if="!found.length" class="second">
          {{
            answer.data.value.length
              ? 'No rubric matches.'
              : 'You have kept no rubric, and none of your courses has one yet.'
          }}
        </li>
      </ul>
    </template>
  </div>
</template>

<style scoped>
.pick {
  display: grid;
  gap: var(--space-3);
}
.list {
  max-height: 260px;
  overflow: auto;
}
.list li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto auto;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.find {
  flex: 0 1 300px;
}
.what {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--space-4);
}
.use {
  grid-column: 4;
}
</style>
