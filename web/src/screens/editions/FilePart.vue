<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import type { SentFile } from '../../foundation/api/uploading'
import { keys } from '../../foundation/keys'
import ProblemNote from '../../parts/ProblemNote.vue'
import FilePicker from '../../parts/files/FilePicker.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'

/** The course as a file, for elsewhere; and a course that comes as one: looked at before it is taken in. */
const props = defineProps<{ edition: number; answer: Schemas['EditionsAnswer'] }>()

const router = useRouter()
const client = useQueryClient()
const term = ref(props.answer.term.id)
const read = ref<{ upload: string; sentence: string; key: string } | null>(null)
const busy = ref(false)
const problem = ref<Problem | null>(null)
const asking = ref(false)

async function does(what: () => Promise<void>): Promise<void> {
  busy.value = true
  problem.value = null
  await what().catch((error: unknown) => (problem.value = problemOf(error)))
  busy.value = false
}

const send = (upload: string, how: { preview?: boolean; key?: string }) =>
  ask(
    api.POST('/api/editions/{edition}/take-in', {
      params: {
        path: { edition: props.edition },
        query: { preview: how.preview },
        header: { ...(how.key && { 'Idempotency-Key': how.key }) },
      },
      body: { term: term.value, upload },
    }),
  )

const look = (sent: SentFile[]) =>
  does(async () => {
    read.value = null
    const upload = sent[0]?.upload
    if (!upload) return
    const { sentence } = await send(upload, { preview: true })
    read.value = { upload, sentence, key: crypto.randomUUID() }
  })

const takeIn = () =>
  does(async () => {
    const made = await send(read.value!.upload, { key: read.value!.key })
    await client.invalidateQueries({ queryKey: keys.places })
    await router.push({ name: 'outline', params: { edition: made.edition! } })
  })

const takeBack = () =>
  does(async () => {
    await ask(
      api.POST('/api/editions/{edition}/take-back-course', {
        params: { path: { edition: props.edition }, header: once() },
        body: {},
      }),
    )
    await client.invalidateQueries({ queryKey: keys.places })
    await router.push({ name: 'places' })
  })
</script>

<template>
  <section class="files" aria-labelledby="files-title">
    <h2 id="files-title">As a file</h2>
    <p class="line">
      <a :href="`/api/editions/${edition}/course.zip`" download
        >export the course with its texts and files (a package)</a
      >
      <a :href="`/api/editions/${edition}/plan.json`" download>export its plan with term and sections (a plan file)</a>
      <span class="second">Neither has anything about students in it.</span>
    </p>
    <p v-if="answer.canTakeBackCourse" class="line">
      <span>No section follows this course yet.</span>
      <button v-if="!asking" type="button" class="word-button" @click="asking = true">remove it</button>
      <template v-else>
        <v-btn :disabled="busy" @click="takeBack">Remove the course for good</v-btn>
        <button type="button" class="word-button" @click="asking = false">keep it</button>
      </template>
    </p>
    <form v-if="answer.canTakeIn" class="taken" @submit.prevent="takeIn">
      <FilePicker
        label="Package"
        words="Choose a package"
        one
        accept=".zip,application/zip"
        :disabled="busy"
        @sent="look"
      />
      <p class="line">
        <span>It becomes a course of your own for</span>
        <ChoiceField
          v-model="term"
          label="Term"
          :choices="[answer.term, ...answer.terms].map((one) => ({ value: one.id, title: one.name }))"
        />
        <v-btn type="submit" class="meant" :disabled="!read || busy">Import it</v-btn>
        <span class="second" role="status">{{ busy ? 'Reading …' : read?.sentence }}</span>
      </p>
    </form>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.files {
  display: grid;
  gap: var(--space-5);
  padding-top: var(--space-9);
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding-bottom: var(--space-2);
}
.taken {
  display: grid;
  gap: var(--space-4);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-7);
}
</style>
