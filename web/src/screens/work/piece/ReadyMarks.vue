<script setup lang="ts">
import { computed } from 'vue'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'
import { useSend } from '../../../foundation/commands/useSend'
import { keys } from '../../../foundation/keys'
import ProblemNote from '../../../parts/ProblemNote.vue'
import ReadyPiece from './ReadyPiece.vue'

/** What teachers left to go back with a piece: one mark, or several beside one another, of which one counts. */
const props = defineProps<{
  edition: number
  section: number
  piece: Schemas['WorkPiece']
  rubric: Schemas['RubricForm'] | null
  canChange: boolean
}>()
const emit = defineEmits<{ change: []; given: [] }>()

const marks = computed(() => (props.piece.ready ? [props.piece.ready, ...(props.piece.beside ?? [])] : []))
const { run, busy, problem } = useSend(
  (body: Schemas['GiveBackReadyRequest'], key) =>
    ask(
      api.POST('/api/sections/{section}/give-back-ready', {
        params: { path: { section: props.section }, header: once(key) },
        body,
      }),
    ),
  [keys.edition(props.edition)],
)
async function count(by: number): Promise<void> {
  if (busy.value || props.piece.work === null) return
  if (await run({ works: [props.piece.work], wait: false, on: null, withAll: false, by })) emit('given')
}
</script>

<template>
  <ReadyPiece
    v-for="mark in marks"
    :key="mark.byId"
    :ready="mark"
    :rubric="rubric"
    :can-change="canChange"
    :is-own="mark.isOwn ?? false"
    :is-one-of-several="marks.length > 1"
    @change="emit('change')"
    @count="count(mark.byId)"
  />
  <p v-if="canChange && !marks.some((mark) => mark.isOwn)">
    <button type="button" class="word-button small" @click="emit('change')">add a mark of your own</button>
  </p>
  <ProblemNote v-if="problem" :problem="problem" />
</template>
