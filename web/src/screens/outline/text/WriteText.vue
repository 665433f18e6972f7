<script setup lang="ts">
import { ref } from 'vue'
import { type Problem, type Schemas, api, ask, problemOf } from '../../../foundation/api/client'
import ProblemNote from '../../../parts/ProblemNote.vue'
import TextEditor from './TextEditor.vue'

/** Opens the text of an item to be written: as it was saved last, by whomever. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const began = ref<Schemas['TextAnswer'] | null>(null)
const problem = ref<Problem | null>(null)
ask(
  api.GET('/api/editions/{edition}/items/{item}/text', {
    params: { path: { edition: props.edition, item: props.item.id } },
  }),
).then(
  (answer) => (began.value = answer),
  (error: unknown) => (problem.value = problemOf(error)),
)
</script>

<template>
  <TextEditor v-if="began" :edition="edition" :item="item" :began="began" @close="emit('close')" />
  <ProblemNote v-else-if="problem" :problem="problem" />
  <p v-else class="small" role="status">Reading …</p>
</template>
