<script setup lang="ts">
import { useMutation, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { type Schemas, api, ask, problemOf } from '../../foundation/api/client'
import DateField from '../fields/DateField.vue'
import TimeField from '../fields/TimeField.vue'
import ProblemNote from '../ProblemNote.vue'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'

/** The demo's clock, which anyone in the demo may move, for everyone. */
const client = useQueryClient()
const clock = useAnswer(() => questions.demoClock())
const moved = useMutation({
  mutationFn: (to: Schemas['DemoClockRequest']) => ask(api.POST('/api/demo/clock', { body: to })),
  onSuccess: () => client.invalidateQueries(),
})
const problem = computed(() => (moved.error.value ? problemOf(moved.error.value) : clock.problem.value))
const choosing = ref(false)
const date = ref<string | null>('')
const time = ref('')

function choose(): void {
  const now = clock.data.value!.now.local
  date.value = now.slice(0, 10)
  time.value = now.slice(11, 16)
  choosing.value = true
}

async function move(to: Partial<Schemas['DemoClockRequest']>): Promise<void> {
  await moved.mutateAsync({ days: null, at: null, ...to }).then(
    () => (choosing.value = false),
    () => undefined,
  )
}
</script>

<template>
  <section v-if="clock.data.value || problem" class="clock" aria-label="The demo’s clock">
    <p class="field-name">The demo’s clock</p>
    <template v-if="clock.data.value">
      <p>
        <b role="status">{{ clock.data.value.now.words }}</b>
      </p>
      <p class="small">Moving it moves it for everyone in the demo.</p>
      <ul>
        <li>
          <button type="button" :disabled="moved.isPending.value" @click="move({ days: 1 })">A day later</button>
        </li>
        <li>
          <button type="button" :disabled="moved.isPending.value" @click="move({ days: 7 })">A week later</button>
        </li>
        <li v-if="!choosing">
          <button type="button" :disabled="moved.isPending.value" @click="choose">To a date …</button>
        </li>
        <li v-else>
          <form class="to" @submit.prevent="move({ at: `${date}T${time}` })" @keydown.esc.stop="choosing = false">
            <DateField v-model="date" label="Date" />
            <TimeField v-model="time" label="Time" />
            <v-btn type="submit" class="meant" :disabled="!date || !time || moved.isPending.value">Move it</v-btn>
          </form>
        </li>
        <li>
          <button type="button" :disabled="moved.isPending.value" @click="move({})">
            Back to {{ clock.data.value.start.words }}
          </button>
        </li>
      </ul>
    </template>
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.clock {
  padding: var(--space-4) 0 var(--space-3);
  border-top: var(--stroke-hair) solid var(--ink);
  max-width: 320px;
}
p {
  padding: 0 var(--space-7);
}
.clock li > button {
  display: block;
  width: 100%;
  padding: var(--space-3) var(--space-7);
}
.clock li > button:hover {
  background: var(--faint-hair);
}
.to {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  padding: var(--space-3) var(--space-7);
}
</style>
