<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useAnswer } from '../../foundation/useAnswer'
import { useSend } from '../../foundation/useSend'
import CommandPanel from '../../parts/CommandPanel.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** A section of a term, with its teachers: they let it follow a course and say when it meets. */
const props = defineProps<{ term: number }>()
const emit = defineEmits<{ close: [] }>()

const people = useAnswer(() => questions.people())
const name = ref('')
const teachers = ref<number[]>([])
const known = computed(() => (people.data.value?.people ?? []).filter((person) => person.state !== 'deactivated'))
const choices = computed(() =>
  known.value
    .filter((person) => !teachers.value.includes(person.person) && (person.teacher || person.teaches > 0))
    .map((person) => ({ value: person.person as number | null, title: person.name, note: person.email })),
)
const chosen = computed(() => known.value.filter((person) => teachers.value.includes(person.person)))
const next = computed({ get: () => null, set: (person: number | null) => person && teachers.value.push(person) })

const { run, busy, problem } = useSend(
  (body: Schemas['MakeSectionRequest'], key) =>
    ask(api.POST('/api/school/make-section', { params: { header: once(key) }, body })),
  [keys.term(props.term), keys.places],
)

async function make(): Promise<void> {
  if (await run({ term: props.term, name: name.value, teachers: teachers.value })) emit('close')
}
</script>

<template>
  <CommandPanel
    label="A new section"
    :problem="problem"
    reach="Its teachers let it follow a course and say when it meets."
    meant="Add the section"
    :disabled="busy || name.trim() === ''"
    @submit="make"
    @close="emit('close')"
  >
    <p class="line">
      <span>A section called</span>
      <WordField v-model="name" class="name" label="Name of the section" placeholder="9 Alder" autofocus />
      <span>taught by</span>
      <span v-for="person in chosen" :key="person.person" class="chosen">
        <b>{{ person.name }}</b>
        <button
          type="button"
          class="word-button small"
          :aria-label="`remove ${person.name}`"
          @click="teachers = teachers.filter((one) => one !== person.person)"
        >
          remove
        </button>
      </span>
      <ChoiceField
        v-if="choices.length"
        v-model="next"
        label="Add a teacher"
        :placeholder="chosen.length ? 'and by …' : 'choose a teacher'"
        :choices="choices"
      />
      <span v-else-if="people.data.value && chosen.length === 0" class="second"
        >nobody yet: add teachers in People first</span
      >
    </p>
  </CommandPanel>
</template>

<style scoped>
.name {
  flex: 0 0 160px;
}
.chosen {
  display: flex;
  align-items: baseline;
  gap: var(--space-3);
}
b {
  font-weight: 600;
}
</style>
