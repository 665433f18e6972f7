<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Problem, ProblemError, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { keys } from '../../foundation/keys'
import { useSend } from '../../foundation/commands/useSend'
import { useAnswer } from '../../foundation/useAnswer'
import { counted } from '../../foundation/words'
import PlainPage from '../../parts/PlainPage.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import WordField from '../../parts/fields/WordField.vue'

/** What should students be able to do? The school’s outcomes, from a file of the office’s: looked at before it is imported. */
const LARGEST = 1_000_000

const answer = useAnswer(() => questions.outcomes())
const text = ref<string | null>(null)
const shown = ref<Schemas['ImportedAnswer'] | null>(null)
const reading = ref(false)
const trouble = ref<Problem | null>(null)
const done = ref('')
const take = useSend(
  (body: { text: string }, key) =>
    ask(api.POST('/api/school/import-outcomes', { params: { header: once(key) }, body })),
  [keys.outcomes],
)
const undo = useSend(
  (body: Record<string, never>, key) =>
    ask(api.POST('/api/school/undo-outcomes', { params: { header: once(key) }, body })),
  [keys.outcomes],
)
const problem = computed(() => trouble.value ?? take.problem.value ?? undo.problem.value)
const isNothing = computed(
  () => shown.value !== null && shown.value.added + shown.value.changed + shown.value.removed === 0,
)
const sought = ref('')
const rows = computed(() => {
  const words = sought.value.trim().toLowerCase()
  return (answer.data.value?.outcomes ?? []).filter((one) =>
    `${one.code} ${one.words} ${one.subject}`.toLowerCase().includes(words),
  )
})

async function read(chosen: File | File[] | null): Promise<void> {
  const file = Array.isArray(chosen) ? chosen[0] : chosen
  text.value = null
  shown.value = null
  trouble.value = null
  done.value = ''
  if (!file) return
  reading.value = true
  try {
    if (file.size > LARGEST)
      throw new ProblemError({
        status: 422,
        code: 'invalid',
        title: 'The file is too large: 1 MB at most.',
        detail: 'Nothing was changed. Leave out what nobody teaches here.',
      })
    const read = await file.text()
    shown.value = await ask(
      api.POST('/api/school/import-outcomes', { params: { query: { preview: true } }, body: { text: read } }),
    )
    text.value = read
  } catch (error) {
    trouble.value = problemOf(error)
  }
  reading.value = false
}

async function send(): Promise<void> {
  if (text.value === null) return
  const answered = await take.run({ text: text.value })
  if (!answered) return
  done.value = `Imported. ${answered.sentence}`
  text.value = null
  shown.value = null
}

async function putBack(): Promise<void> {
  if (await undo.run({})) done.value = 'The list is as it was before the last import.'
}
</script>

<template>
  <PlainPage>
    <section aria-labelledby="outcomes-title">
      <h1 id="outcomes-title">Outcomes</h1>
      <p class="second wide">
        What students should be able to do. Teachers choose outcomes for the items of their courses, and the overview of
        each unit lists them for its students.
      </p>
      <form novalidate @submit.prevent="send">
        <p class="line">
          <span>A file that lists them all</span>
          <v-file-input
            class="file"
            aria-label="File of outcomes"
            placeholder="choose a file"
            accept=".csv,text/csv,.tsv,.txt"
            @update:model-value="read"
          />
          <span v-if="reading" class="second" role="status">Reading …</span>
          <span v-else-if="!shown" class="second"
            >CSV, with columns headed <b>code</b>, <b>outcome</b> and, if you like, <b>subject</b></span
          >
        </p>
        <ProblemNote v-if="problem" :problem="problem" />
        <p v-if="shown" class="line">
          <span role="status">{{ shown.sentence }}</span>
          <v-btn type="submit" class="meant" :disabled="isNothing || take.busy.value">Import these</v-btn>
        </p>
      </form>
      <p v-if="answer.data.value?.imported || done" class="line small">
        <span v-if="done" role="status">{{ done }}</span>
        <template v-if="answer.data.value?.imported">
          <span class="second"
            >{{ answer.data.value.imported.by }} imported the latest file
            {{ answer.data.value.imported.at.words }}.</span
          >
          <button type="button" class="word-button" :disabled="undo.busy.value" @click="putBack">
            undo the import
          </button>
        </template>
      </p>
    </section>
    <section aria-labelledby="list-title">
      <div class="head">
        <h2 id="list-title">The list</h2>
        <WordField
          v-if="answer.data.value?.outcomes.length"
          v-model="sought"
          label="Find an outcome"
          placeholder="find one"
        />
      </div>
      <ProblemNote v-if="answer.problem.value" :problem="answer.problem.value" :again="answer.refetch" />
      <p v-else-if="!answer.data.value" class="second" role="status">Reading …</p>
      <p v-else-if="answer.data.value.outcomes.length === 0" class="second">
        There are no outcomes yet. Choose a file above.
      </p>
      <p v-else-if="rows.length === 0" class="second">None of them says “{{ sought }}”.</p>
      <ul v-else class="ruled" aria-label="Outcomes">
        <li v-for="one in rows" :key="one.code" class="row">
          <span class="code">{{ one.code }}</span>
          <span>{{ one.words }}</span>
          <span class="second">{{ one.subject }}</span>
          <span class="small">{{ one.items === 0 ? '' : `in ${counted(one.items, 'item')}` }}</span>
        </li>
      </ul>
    </section>
  </PlainPage>
</template>

<style scoped>
.wide {
  max-width: 80ch;
  padding-bottom: var(--space-5);
}
.line,
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
.head {
  justify-content: space-between;
  padding-bottom: var(--space-3);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
.file {
  width: 260px;
  flex: none;
}
.row {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr) 160px 100px;
  gap: var(--space-5);
  align-items: baseline;
  padding: var(--space-2) 0;
}
.code {
  color: var(--ink-2);
  overflow-wrap: anywhere;
}
@media (max-width: 600px) {
  .row {
    grid-template-columns: 72px minmax(0, 1fr);
  }
  .row > :nth-child(n + 3) {
    grid-column: 2;
  }
}
</style>
