<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, problemOf } from '../../../foundation/api/client'
import { counted } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** A rubric from a spreadsheet: pasted or from a CSV file, with what is at fault by row and column. */
const props = defineProps<{ edition: number; item: number }>()
const emit = defineEmits<{ taken: [criteria: Schemas['CriterionForm'][]]; close: [] }>()

const MOST = 100_000
const text = ref('')
const read = ref<Schemas['UnderstoodRubric'] | null>(null)
const problem = ref<Problem | null>(null)

watch(refDebounced(text, 250), async (typed) => {
  problem.value = null
  read.value = null
  if (!typed.trim()) return
  try {
    const found = await ask(
      api.POST('/api/editions/{edition}/understand-rubric', {
        params: { path: { edition: props.edition } },
        body: { item: props.item, text: typed },
      }),
    )
    if (typed === text.value) read.value = found
  } catch (error) {
    problem.value = problemOf(error)
  }
})

async function open(files: File | File[] | null): Promise<void> {
  const file = Array.isArray(files) ? files[0] : files
  if (file) text.value = (await file.slice(0, 4 * MOST).text()).replace(/^\uFEFF/, '').slice(0, MOST)
}
</script>

<template>
  <div class="paste">
    <p class="small second">
      One criterion per row. The first row names the levels with their points: Criterion, Not yet (0), Nearly (1–2),
      There (3). You can add columns headed Weight and Optional. A dash means the criterion has no such level.
    </p>
    <v-textarea
      v-model="text"
      class="typed"
      rows="6"
      :maxlength="MOST"
      aria-label="Table from a spreadsheet"
      placeholder="Paste cells from a spreadsheet here"
      spellcheck="false"
    />
    <ProblemNote v-if="problem" :problem="problem" />
    <ul v-if="read?.faults.length" class="ruled" aria-label="What is not understood">
      <li v-for="(fault, at) in read.faults" :key="at">
        <span v-if="fault.row !== null"
          >Row {{ fault.row }}<template v-if="fault.column">, “{{ fault.column }}”</template>: </span
        >{{ fault.words }}
      </li>
    </ul>
    <p class="ways">
      <v-btn :disabled="!read?.criteria" @click="emit('taken', read!.criteria!)">Use this table</v-btn>
      <v-file-input
        class="file"
        aria-label="A CSV file"
        placeholder="or bring in a CSV file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        @update:model-value="open"
      />
      <span class="small" role="status"
        ><template v-if="read?.criteria"
          >{{ counted(read.criteria.length, 'criterion', 'criteria') }} with up to
          {{ counted(Math.max(...read.criteria.map((one) => one.levels.length)), 'level', 'levels') }}.</template
        ></span
      >
    </p>
  </div>
</template>

<style scoped>
.paste {
  display: grid;
  gap: var(--space-3);
}
.file {
  max-width: 220px;
}
.typed :deep(textarea) {
  font-family: var(--face-figures, ui-monospace, monospace);
}
</style>
