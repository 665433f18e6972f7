<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { type Schemas } from '../../../foundation/api/client'
import { useAnswer } from '../../../foundation/useAnswer'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useLevels } from '../../../foundation/levels'
import GroupPanel from './GroupPanel.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import WordField from '../../../parts/fields/WordField.vue'
import { questions } from '../../../foundation/api/questions'

/** Who of a section is in which group: a column a group, named here or at an item, before there are students or after. */
const props = defineProps<{ edition: number; section: number }>()
const levels = useLevels()

const edition = toRef(props, 'edition')
const answer = useAnswer(() => questions.groups(props.edition))
const groups = computed(() => answer.data.value?.groups ?? [])
const here = computed(() => answer.data.value?.sections.find((one) => one.id === props.section))
const students = computed(() => here.value?.students ?? [])
const dividing = ref<'lot' | 'list' | null>(null)
const canChange = computed(() => answer.data.value?.canChange ?? false)
const name = ref('')
const add = useEditionCommand(edition, '/api/editions/{edition}/add-group')
const put = useEditionCommand(edition, '/api/editions/{edition}/put-in-group')
const remove = useEditionCommand(edition, '/api/editions/{edition}/remove-group')
const problem = computed(() => add.problem.value ?? put.problem.value ?? remove.problem.value)
const itemsOf = (group: Schemas['GroupCard']) =>
  group.items === 0 ? 'not used yet' : levels.value.item.counted(group.items)

const addGroup = () =>
  add.run({ name: name.value }).then(
    () => (name.value = ''),
    () => undefined,
  )
const setIn = (group: Schemas['GroupCard'], student: number, isIn: boolean) =>
  put.run({ group: group.id, members: [{ student, in: isIn }] }).catch(() => undefined)
</script>

<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="answer.problem.value" class="second">{{ answer.problem.value.title }}</p>
    <p v-else-if="groups.length === 0" class="second none">
      There are no groups yet. Parts of the course can be for some students only: add a group, choose it at the
      {{ levels.item.many }} that are for it, and put students in it whenever there are any.
    </p>
    <table v-else>
      <thead>
        <tr>
          <th scope="col" class="small">{{ students.length === 1 ? '1 student' : `${students.length} students` }}</th>
          <th v-for="group in groups" :key="group.id" scope="col">
            <span class="head">{{ group.name }}</span> <span class="small">{{ itemsOf(group) }}</span>
            <button
              v-if="canChange && group.items === 0"
              type="button"
              class="word-button small"
              @click="remove.run({ group: group.id, version: group.version }).catch(() => undefined)"
            >
              remove<span class="said-only">: {{ group.name }}</span>
            </button>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="student in students" :key="student.id">
          <th scope="row">{{ student.name }}</th>
          <td v-for="group in groups" :key="group.id">
            <v-checkbox
              :model-value="group.members.includes(student.id)"
              :disabled="!canChange || put.busy.value"
              :aria-label="`${student.name} is in ${group.name}`"
              @update:model-value="setIn(group, student.id, Boolean($event))"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="groups.length > 0 && students.length === 0" class="second none">No student is in this section yet.</p>
    <form v-if="canChange" class="add" @submit.prevent="addGroup">
      <span>A new group</span> <WordField v-model="name" label="A new group" :maxlength="60" />
      <v-btn type="submit" :disabled="!name.trim() || add.busy.value">Add it</v-btn>
      <template v-if="students.length > 1">
        <button type="button" class="word-button" @click="dividing = 'lot'">draw groups by lot</button>
        <button type="button" class="word-button" @click="dividing = 'list'">groups from a list</button>
      </template>
    </form>
    <GroupPanel
      v-if="here && dividing"
      :key="dividing"
      :edition="edition"
      :section="here"
      :way="dividing"
      @close="dividing = null"
    />
  </div>
</template>

<style scoped>
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: var(--space-2) var(--space-8) var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
thead th {
  font-weight: 600;
  border-color: var(--ink);
}
.head {
  padding-right: var(--space-3);
}
thead .word-button {
  margin-left: var(--space-4);
}
.none {
  padding: var(--space-5) 0;
  max-width: 640px;
}
.add {
  display: flex;
  align-items: baseline;
  gap: var(--space-5);
  padding: var(--space-6) 0;
}
</style>
