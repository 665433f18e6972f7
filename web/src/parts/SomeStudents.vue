<script setup lang="ts">
import { computed, ref } from 'vue'
import { questions } from '../foundation/api/questions'
import { useAnswer } from '../foundation/useAnswer'
import { useViewpoint } from '../foundation/useViewpoint'
import { counted } from '../foundation/words'
import ForStudentPanel from './ForStudentPanel.vue'
import TickField from './fields/TickField.vue'

/** One thing in one section, for some of its students only: they are ticked, and what is different for them is said. */
const props = defineProps<{ edition: number; section: number; item: { id: number; title: string } }>()
const emit = defineEmits<{ close: [] }>()

const viewpoint = useViewpoint()
const answer = useAnswer(() => questions.classLists(props.edition, viewpoint.query.value))
const list = computed(() => answer.data.value?.sections.find((one) => one.section === props.section))
const here = computed(() => (list.value?.students ?? []).filter((line) => !line.left))
const differing = computed(() => here.value.filter((line) => line.differs.includes(props.item.id)))
const chosen = ref<number[]>([])
const chosenLines = computed(() => here.value.filter((line) => chosen.value.includes(line.student)))
const name = computed(() =>
  chosenLines.value.length === 1 ? chosenLines.value[0]!.name : counted(chosenLines.value.length, 'student'),
)
const items = computed(() => [
  { ...props.item, differs: chosenLines.value.some((line) => differing.value.includes(line)) ? ['something'] : [] },
])
</script>

<template>
  <div class="some">
    <section class="names" :aria-label="`For single students: ${item.title}`">
      <p v-if="answer.problem.value" class="second">{{ answer.problem.value.title }}</p>
      <p v-else-if="!answer.data.value" class="second" role="status">Reading the class list …</p>
      <p v-else-if="!list" class="second">
        You do not teach this section, so its students are not yours to choose from.
      </p>
      <template v-else>
        <p class="line">
          <b>{{ item.title }}</b>
          <span class="second">
            {{
              differing.length === 0
                ? `is the same for everybody in ${list.name}.`
                : `is different for ${counted(differing.length, 'student')} in ${list.name}, marked below.`
            }}
            Tick those for whom it is to be different.
          </span>
          <v-btn v-if="chosen.length === 0" class="end" @click="emit('close')">Leave it as it is</v-btn>
        </p>
        <p v-if="here.length === 0" class="second">No student is in {{ list.name }} yet.</p>
        <ul>
          <li v-for="line in here" :key="line.student">
            <TickField v-model="chosen" :value="line.student">
              <b v-if="differing.includes(line)">{{ line.name }}, different</b>
              <template v-else>{{ line.name }}</template>
            </TickField>
          </li>
        </ul>
      </template>
    </section>
    <ForStudentPanel
      v-if="chosen.length > 0"
      :key="chosen.join(' ')"
      :edition="edition"
      :students="chosen"
      :name="name"
      :items="items"
      @close="emit('close')"
    />
  </div>
</template>

<style scoped>
.some {
  max-height: 60vh;
  overflow: auto;
}
.names {
  padding: var(--space-5) var(--space-7) var(--space-4);
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
.end {
  margin-left: auto;
}
ul {
  columns: 220px auto;
  padding-top: var(--space-3);
}
li {
  break-inside: avoid;
}
</style>
