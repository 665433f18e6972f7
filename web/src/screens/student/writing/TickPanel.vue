<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { keys } from '../../../foundation/keys'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** Where nothing is handed in: a student says that it is done. */
const props = defineProps<{ section: number; answer: Schemas['StudentItemAnswer'] }>()

const client = useQueryClient()
const busy = ref(false)
const problem = ref<Problem | null>(null)

async function tick(done: boolean): Promise<void> {
  busy.value = true
  problem.value = null
  await ask(
    api.POST('/api/sections/{section}/tick-off', {
      params: { path: { section: props.section }, header: once() },
      body: { item: props.answer.item, done },
    }),
  ).catch((error: unknown) => (problem.value = problemOf(error)))
  await client.invalidateQueries({ queryKey: keys.section(props.section) })
  busy.value = false
}
</script>

<template>
  <section class="tick" aria-label="Is it done?">
    <p v-if="answer.isTicked" class="ways">
      <span role="status">You ticked it off.</span>
      <button v-if="answer.mayTick" type="button" class="word-button" :disabled="busy" @click="tick(false)">
        not done after all
      </button>
    </p>
    <p v-else class="ways">
      <v-btn :class="{ meant: answer.progress !== 'done' }" :disabled="busy" @click="tick(true)">Tick it off</v-btn>
      <span class="small second">Nothing has to be handed in.</span>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.tick {
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-5);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4) var(--space-5);
}
</style>
