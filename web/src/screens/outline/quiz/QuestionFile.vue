<script setup lang="ts">
import { ref } from 'vue'
import { type Schemas, api, ask, once } from '../../../foundation/api/client'
import { useSend } from '../../../foundation/commands/useSend'
import { useUploads } from '../../../parts/files/useUploads'
import { sizeInWords } from '../../../parts/files/fileWords'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** Takes questions from a package of QTI, to be looked at before they are saved. */
const props = defineProps<{ edition: number }>()
const emit = defineEmits<{ taken: [questions: Schemas['TakenQuestions']] }>()

const field = ref<HTMLInputElement | null>(null)
const { going, add } = useUploads((files) => {
  if (files[0]) void run(files[0].upload)
})
const { run, busy, problem } = useSend(
  async (upload: string, key) =>
    emit(
      'taken',
      await ask(
        api.POST('/api/editions/{edition}/take-questions', {
          params: { path: { edition: props.edition }, header: once(key) },
          body: { upload },
        }),
      ),
    ),
  [],
)
function picked(event: Event): void {
  const input = event.target as HTMLInputElement
  add([...(input.files ?? [])].slice(0, 1))
  input.value = ''
}
</script>

<template>
  <span class="line">
    <button type="button" class="word-button" :disabled="busy" @click="field?.click()">from a QTI package</button>
    <input
      ref="field"
      type="file"
      class="said-only"
      tabindex="-1"
      accept=".zip,application/zip"
      aria-label="A package of QTI 2 with questions"
      @change="picked"
    />
    <template v-for="file in going" :key="file.id">
      <span v-if="file.problem" class="small accent" role="alert">{{ file.problem.title }}</span>
      <span v-else class="small" role="status">{{ sizeInWords(file.sent) }} of {{ sizeInWords(file.size) }}</span>
      <button type="button" class="word-button small" @click="file.stop">
        {{ file.problem ? 'dismiss' : 'cancel' }}
      </button>
    </template>
    <span v-if="busy" class="small" role="status">Reading the questions …</span>
  </span>
  <ProblemNote v-if="problem" :problem="problem" />
</template>
