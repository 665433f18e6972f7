<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { counted } from '../../../foundation/words'
import WordField from '../../../parts/fields/WordField.vue'
import { mostOf } from '../../../parts/marks/rubric'
import ProblemNote from '../../../parts/ProblemNote.vue'
import CriterionRow from './CriterionRow.vue'
import RubricPaste from './RubricPaste.vue'
import RubricPick from './RubricPick.vue'
import { MOST_CRITERIA, copyOf, freshCriterion, freshRubric, lacking, unbound } from './rubricDraft'

/** Making or changing a rubric in place: criterion by criterion, from a table, or from one that is there already. */
const props = defineProps<{
  edition: number
  item: Schemas['ItemAnswer']
  before: Schemas['ItemRubricAnswer']
}>()
const emit = defineEmits<{ close: [] }>()

const { version, overTheirs } = usePinned(props.before.version)
const draft = ref(props.before.rubric ? copyOf(props.before.rubric) : freshRubric(props.item.title))
const from = ref<'table' | 'courses' | null>(null)
const isOff = ref(false)

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-rubric')
const fault = computed(() => (isOff.value ? '' : lacking(draft.value)))
const request = computed(() => {
  const rubric = isOff.value ? null : draft.value
  if (fault.value || JSON.stringify(rubric) === JSON.stringify(props.before.rubric)) return null
  return { item: props.item.id, rubric: rubric && copyOf(rubric), version: version.value }
})
const reach = useReach(request, write.preview)

function take(criteria: Schemas['CriterionForm'][]): void {
  draft.value.criteria = criteria
  from.value = null
}
function swap(rubric: Schemas['RubricForm']): void {
  draft.value = unbound(copyOf(rubric))
  from.value = null
}
function move(at: number, by: number): void {
  const [one] = draft.value.criteria.splice(at, 1)
  draft.value.criteria.splice(at + by, 0, one!)
}

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(write.problem.value)
  void save()
}
async function save(): Promise<void> {
  if (!request.value) return
  await write.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="editor" aria-label="The rubric" @submit.prevent="save" @keydown.esc.stop="emit('close')">
    <p class="line">
      <WordField v-model="draft.name" class="name" label="Name of the rubric" :maxlength="100" />
      <span class="second">{{ counted(mostOf(draft), 'point', 'points') }} in all</span>
      <button
        type="button"
        class="word-button"
        :aria-expanded="from === 'table'"
        @click="from = from === 'table' ? null : 'table'"
      >
        paste a table
      </button>
      <button
        type="button"
        class="word-button"
        :aria-expanded="from === 'courses'"
        @click="from = from === 'courses' ? null : 'courses'"
      >
        take one from your shelf or courses
      </button>
      <button v-if="before.rubric" type="button" class="word-button" :aria-pressed="isOff" @click="isOff = !isOff">
        {{ isOff ? 'keep it' : 'take it off' }}
      </button>
    </p>
    <RubricPaste v-if="from === 'table'" :edition="edition" :item="item.id" @taken="take" @close="from = null" />
    <RubricPick v-if="from === 'courses'" :edition="edition" @taken="swap" @close="from = null" />
    <template v-if="!isOff">
      <ol class="criteria" aria-label="Criteria">
        <CriterionRow
          v-for="(_, at) in draft.criteria"
          :key="at"
          v-model="draft.criteria[at]!"
          :place="at"
          :many="draft.criteria.length"
          @move="move(at, $event)"
          @remove="draft.criteria.splice(at, 1)"
        />
      </ol>
      <p v-if="draft.criteria.length < MOST_CRITERIA">
        <button
          type="button"
          class="word-button"
          @click="draft.criteria.push(freshCriterion(draft.criteria[draft.criteria.length - 1]))"
        >
          Add a criterion
        </button>
      </p>
    </template>
    <ProblemNote v-if="write.problem.value" :problem="write.problem.value">
      <v-btn v-if="write.problem.value.conflict" @click="useMine">Use mine instead</v-btn>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || write.busy.value">{{
        isOff ? 'Take the rubric off' : 'Save the rubric'
      }}</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ fault || (reach ?? '') }}</span>
    </p>
  </form>
</template>

<style scoped>
.name {
  flex: 0 1 320px;
}
.criteria {
  list-style: none;
  display: grid;
}
</style>
