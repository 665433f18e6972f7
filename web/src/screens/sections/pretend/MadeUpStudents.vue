<script setup lang="ts">
import { ref, toRef } from 'vue'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { counted } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { pretendOf } from '../../../parts/shell/pretend'
import type { Card } from '../useSections'

/** The students of a pretend section: what each of them is made out to have done, and the course through their eyes. */
const props = defineProps<{ edition: number; card: Card; canChange: boolean }>()

type MadeUp = NonNullable<Card['pretend']>[number]
const viewpoint = useViewpoint()
const makeUp = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/make-up-students')
const name = ref('')
const known = () => props.card.pretend ?? []
const eyes = (student: MadeUp) => `pretend:${props.card.id}${student.facts && `~${student.facts}`}`
const deeds = (student: MadeUp) => pretendOf(eyes(student))?.facts.length ?? 0

const keep = (students: MadeUp[]) =>
  makeUp.run({ section: props.card.id, students, version: props.card.version }).then(
    () => (name.value = ''),
    () => undefined,
  )
const add = () => name.value.trim() && keep([...known(), { name: name.value.trim(), facts: '' }])
</script>

<template>
  <div>
    <p class="second said">
      Nobody is in {{ card.name }}. Make up a student, look through their eyes, and say there what they have done. What
      opens for them is worked out as for anyone else.
    </p>
    <p v-if="known().length === 0" class="second said">No student is made up yet.</p>
    <ul v-else class="ruled">
      <li v-for="student in known()" :key="student.name" class="line">
        <b class="name">{{ student.name }}</b>
        <span class="small">{{
          deeds(student) === 0 ? 'has done nothing yet' : counted(deeds(student), 'thing') + ' done'
        }}</span>
        <span class="acts">
          <router-link
            class="word-button"
            :to="{
              name: 'seen',
              params: { edition, section: card.id },
              query: { ...viewpoint.query.value, as: eyes(student), named: student.name },
            }"
            >look through their eyes<span class="said-only">: {{ student.name }}</span></router-link
          >
          <button
            v-if="canChange"
            type="button"
            class="word-button"
            @click="keep(known().filter((one) => one !== student))"
          >
            take out<span class="said-only"> {{ student.name }}</span>
          </button>
        </span>
      </li>
    </ul>
    <form v-if="canChange" class="line" novalidate @submit.prevent="add">
      <WordField
        v-model="name"
        label="Name of the made-up student"
        placeholder="such as Quick, or Always late"
        :maxlength="60"
      />
      <v-btn type="submit" class="meant" :disabled="!name.trim() || makeUp.busy.value">Add the student</v-btn>
    </form>
    <ProblemNote v-if="makeUp.problem.value" :problem="makeUp.problem.value" />
  </div>
</template>

<style scoped>
.said {
  padding: var(--space-4) 0;
  max-width: 640px;
}
.line {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
  padding: var(--space-4) 0;
}
.name {
  min-width: 160px;
}
.acts {
  display: flex;
  gap: var(--space-6);
  margin-left: auto;
}
form {
  max-width: 480px;
}
</style>
