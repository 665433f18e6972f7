<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { nextTick, ref, useTemplateRef } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import ProblemNote from '../../parts/ProblemNote.vue'

/** A student says that they cannot open this, or something in it: their teacher finds it in Today. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const client = useQueryClient()
const saying = ref(false)
const note = ref('')
const busy = ref(false)
const problem = ref<Problem | null>(null)
const form = useTemplateRef<HTMLElement>('form')

function begin(): void {
  saying.value = true
  void nextTick(() => form.value?.querySelector('textarea')?.focus())
}

async function say(): Promise<void> {
  busy.value = true
  problem.value = null
  await ask(
    api.POST('/api/sections/{section}/say-cannot-open', {
      params: { path: { section: props.section }, header: once() },
      body: { item: props.answer.item, note: note.value },
    }),
  ).then(
    () => {
      saying.value = false
      note.value = ''
    },
    (error: unknown) => (problem.value = problemOf(error)),
  )
  await client.invalidateQueries({ queryKey: keys.section(props.section) })
  busy.value = false
}
</script>

<template>
  <section class="cannot" aria-label="If you can’t open it">
    <form v-if="saying" ref="form" novalidate @submit.prevent="say" @keydown.esc.stop.prevent="saying = false">
      <label class="field-name" for="cannot-open">What happens when you try? You can leave this empty.</label>
      <v-textarea id="cannot-open" v-model="note" rows="2" auto-grow maxlength="500" />
      <ProblemNote v-if="problem" :problem="problem" />
      <p class="ways">
        <v-btn type="submit" class="meant" :disabled="busy">Tell my teacher</v-btn>
        <v-btn @click="saying = false">Don’t</v-btn>
      </p>
    </form>
    <p v-else class="ways small">
      <span v-if="answer.saidCannotOpenAt" role="status"
        >You told your teacher on {{ answer.saidCannotOpenAt.words }} that you can’t open this.</span
      >
      <button type="button" class="word-button" @click="begin">
        {{ answer.saidCannotOpenAt ? 'add something' : 'I can’t open this' }}
      </button>
    </p>
  </section>
</template>

<style scoped>
.cannot {
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-4);
}
form {
  display: grid;
  gap: var(--space-3);
  max-width: 60ch;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4) var(--space-5);
}
</style>
