<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { keys } from '../../../foundation/keys'
import { useAnswer } from '../../../foundation/useAnswer'
import { useViewpoint } from '../../../foundation/useViewpoint'
import { counted } from '../../../foundation/words'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** A choice: what there is to pick, what is picked, and what that opens. */
const props = defineProps<{ section: number; item: number }>()

const client = useQueryClient()
const viewpoint = useViewpoint()
const offer = useAnswer(() => questions.offer(props.section, props.item, viewpoint.query.value), {
  refetchInterval: 30_000,
})
const read = computed(() => offer.data.value)
const picked = computed(() => (read.value?.options ?? []).filter((one) => one.isPicked).map((one) => one.option))
const waits = computed(() =>
  (read.value?.options ?? []).filter((one) => one.queue.place !== null).map((one) => one.option),
)
const wanted = ref<string[]>([])
watch(picked, (now) => (wanted.value = [...now]), { immediate: true })
const mayPick = computed(() => viewpoint.isOnesOwn.value && read.value?.mayPick === true)
const isSame = computed(() => JSON.stringify([...wanted.value].sort()) === JSON.stringify([...picked.value].sort()))
const isTooMany = computed(() => wanted.value.length > (read.value?.picks ?? 1))
const busy = ref(false)
const problem = ref<Problem | null>(null)
const sentence = ref('')

const post = (preview: boolean, options = wanted.value, waitFor = waits.value) =>
  ask(
    api.POST('/api/sections/{section}/pick-options', {
      params: { path: { section: props.section }, query: { preview }, header: preview ? {} : once() },
      body: { item: props.item, options, waitFor },
    }),
  )
watch(wanted, async () => {
  sentence.value = ''
  problem.value = null
  if (!mayPick.value || isSame.value || isTooMany.value) return
  try {
    sentence.value = (await post(true)).sentence
  } catch (error) {
    problem.value = problemOf(error)
  }
})
function turn(option: string): void {
  const isOn = wanted.value.includes(option)
  wanted.value =
    read.value?.picks === 1
      ? isOn
        ? []
        : [option]
      : isOn
        ? wanted.value.filter((one) => one !== option)
        : [...wanted.value, option]
}
const pick = () => send(() => post(false))
/** What joining a queue, or leaving it, comes to: it is said where it is done. */
const queued = ref<{ option: string; sentence: string } | null>(null)
const turnWait = (option: string, isWanted: boolean) =>
  send(async () => {
    const waitFor = isWanted ? [...waits.value, option] : waits.value.filter((one) => one !== option)
    queued.value = { option, sentence: (await post(false, picked.value, waitFor)).sentence }
  })
async function send(what: () => Promise<unknown>): Promise<void> {
  busy.value = true
  problem.value = null
  queued.value = null
  try {
    await what()
    await client.invalidateQueries({ queryKey: keys.section(props.section) })
  } catch (error) {
    problem.value = problemOf(error)
  } finally {
    busy.value = false
  }
}
function standing(one: Schemas['OfferLine']): string {
  if (one.by) return `${one.by} picked this for you`
  if (one.queue.cameUpAt) return `a place came free: yours since ${one.queue.cameUpAt.words}`
  if (one.isPicked) return 'you have picked this'
  if (one.room === null) return ''
  if (one.room > 0) return `room for ${one.room} more`
  if (one.queue.waiting === 0) return 'full'
  if (one.queue.place === null) return `full, ${counted(one.queue.waiting, 'student')} in the queue`
  return one.queue.place === 1
    ? 'full; you are first in the queue'
    : `full; you are number ${one.queue.place} in the queue`
}
/** It is full, and they could still get it. */
const mayWait = (one: Schemas['OfferLine']) =>
  mayPick.value &&
  !one.isPicked &&
  (one.queue.place !== null || (one.room === 0 && !(read.value!.isFinal && picked.value.length >= read.value!.picks)))
/** Nothing more can be had of it: it is full, or what is picked stays. */
const isShut = (option: string, room: number | null) =>
  !mayPick.value ||
  (picked.value.includes(option)
    ? read.value!.isFinal
    : room === 0 || (read.value!.isFinal && picked.value.length >= read.value!.picks))
</script>

<template>
  <section class="choice" aria-label="Pick">
    <ProblemNote v-if="offer.problem.value && !read" :problem="offer.problem.value" :again="offer.refetch" />
    <p v-else-if="!read" class="second" role="status">Reading what there is to pick …</p>
    <form v-else @submit.prevent="pick">
      <p class="second">
        {{ read.picks === 1 ? 'Pick one.' : `Pick up to ${read.picks}.` }}
        {{ read.isFinal ? 'What you pick stays picked.' : 'You can change it for as long as this is open.' }}
      </p>
      <ul class="options">
        <li v-for="one in read.options" :key="one.option" :class="{ on: wanted.includes(one.option) }">
          <button
            type="button"
            :aria-pressed="wanted.includes(one.option)"
            :disabled="isShut(one.option, one.room)"
            @click="turn(one.option)"
          >
            <b>{{ one.title }}</b>
            <span class="small">{{ standing(one) }}</span>
            <span v-if="one.words" class="words">{{ one.words }}</span>
            <img v-if="one.picture" :src="one.picture.source" :alt="one.picture.words" />
          </button>
          <p v-if="mayWait(one) || queued?.option === one.option" class="wait">
            <button
              v-if="mayWait(one)"
              type="button"
              class="word-button"
              :disabled="busy"
              :aria-label="
                one.queue.place === null ? `join the queue for ${one.title}` : `leave the queue for ${one.title}`
              "
              @click="turnWait(one.option, one.queue.place === null)"
            >
              {{ one.queue.place === null ? 'join the queue' : 'leave the queue' }}
            </button>
            <span class="small" role="status">{{ queued?.option === one.option ? queued.sentence : '' }}</span>
          </p>
        </li>
      </ul>
      <ProblemNote v-if="problem" :problem="problem" />
      <p v-if="mayPick && (!isSame || isTooMany)" class="ways">
        <v-btn type="submit" class="meant" :disabled="isSame || isTooMany || busy">{{
          wanted.length === 0 ? 'Pick nothing for now' : picked.length ? 'Pick this instead' : 'Pick this'
        }}</v-btn>
        <span class="small" role="status">{{ isTooMany ? `Only ${read.picks} can be picked.` : sentence }}</span>
      </p>
    </form>
  </section>
</template>

<style scoped>
.choice form {
  display: grid;
  gap: var(--space-5);
}
.options {
  list-style: none;
  display: grid;
  gap: var(--space-4);
}
.options li > button {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  width: 100%;
  padding: var(--space-4) var(--space-5);
  text-align: left;
  border: var(--stroke-hair) solid var(--hair);
  border-left: var(--stroke-strong) solid var(--hair);
}
.options li > button:disabled {
  color: inherit;
  cursor: default;
}
.options .on > button {
  background: var(--sheet);
  border-color: var(--ink);
}
img {
  max-width: 100%;
  max-height: 240px;
  object-fit: contain;
}
.wait {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding: var(--space-2) var(--space-5) 0;
}
.words {
  flex-basis: 100%;
  max-width: 70ch;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
