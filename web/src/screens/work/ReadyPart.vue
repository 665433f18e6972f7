<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import DateField from '../../parts/fields/DateField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import TickField from '../../parts/fields/TickField.vue'
import TimeField from '../../parts/fields/TimeField.vue'
import { goesBack } from './workOrder'

/** What is ready in a section goes back together: which pieces, and what opens by it, before. */
const props = defineProps<{ edition: number; section: Schemas['WorkSection'] }>()
const emit = defineEmits<{ close: [] }>()

const pieces = computed(() =>
  props.section.pieces.flatMap((piece) => (piece.ready && piece.work !== null ? [{ ...piece, work: piece.work }] : [])),
)
/** Those that stay. */
const left = ref<readonly number[]>([])
const chosen = computed(() => pieces.value.map((piece) => piece.work).filter((work) => !left.value.includes(work)))
const sentence = ref('')

const tick = (work: number, isChosen: boolean) =>
  (left.value = isChosen ? left.value.filter((one) => one !== work) : [...left.value, work])
/** When they go back. */
const when = ref<'now' | 'at' | 'all'>('now')
const date = ref<string | null>(null)
const time = ref('08:00')
const isWhole = computed(() => chosen.value.length > 0 && (when.value !== 'at' || (!!date.value && time.value !== '')))
const request = computed(() => ({
  works: chosen.value,
  wait: false,
  on: when.value === 'at' ? `${date.value}T${time.value}` : null,
  withAll: when.value === 'all',
}))
const post = (preview: boolean, body: Schemas['GiveBackReadyRequest'], key?: string) =>
  ask(
    api.POST('/api/sections/{section}/give-back-ready', {
      params: { path: { section: props.section.section }, query: { preview }, header: key ? once(key) : {} },
      body,
    }),
  )
watch(
  () => (isWhole.value ? request.value : null),
  async (wanted) => {
    sentence.value = ''
    if (!wanted) return
    const shown = await post(true, wanted).then(
      (answer) => answer.sentence,
      (error) => problemOf(error).title,
    )
    if (wanted === request.value) sentence.value = shown
  },
  { immediate: true },
)

const { run, busy, problem } = useSend(
  (body: Schemas['GiveBackReadyRequest'], key) => post(false, body, key),
  [keys.edition(props.edition)],
)
async function send(wait: boolean): Promise<void> {
  if (
    chosen.value.length === 0 ||
    !(await run(wait ? { ...request.value, wait, on: null, withAll: false } : request.value))
  )
    return
  if (pieces.value.length === 0 || (!wait && when.value !== 'now')) emit('close')
}
</script>

<template>
  <section class="ready" aria-label="Ready to go back" @keydown.esc.stop="emit('close')">
    <ul>
      <li v-for="piece in pieces" :key="piece.work">
        <TickField
          :model-value="chosen.includes(piece.work)"
          :label="[piece.name, piece.code, piece.ready!.words, goesBack(piece.ready!)].filter(Boolean).join(' · ')"
          @update:model-value="tick(piece.work, $event === true)"
        />
      </li>
    </ul>
    <p class="ways">
      <OneOfField
        v-model="when"
        label="When they go back"
        :choices="[
          { value: 'now', title: 'now' },
          { value: 'at', title: 'at a moment' },
          { value: 'all', title: 'once every piece of the same item is ready' },
        ]"
      />
      <template v-if="when === 'at'">
        <DateField v-model="date" label="The day they go back" />
        <TimeField v-model="time" label="The time they go back" />
      </template>
    </p>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="ways">
      <v-btn class="meant" :disabled="busy || !isWhole" @click="send(false)">{{
        when !== 'now'
          ? 'Give them back then'
          : chosen.length
            ? `Give back ${counted(chosen.length, 'piece')}`
            : 'Give back'
      }}</v-btn>
      <v-btn :disabled="busy || chosen.length === 0" @click="send(true)">Not ready after all</v-btn>
      <v-btn @click="emit('close')">Not yet</v-btn>
      <span class="small" role="status"
        >{{ sentence
        }}<template v-if="when === 'now'">
          Once {{ chosen.length === 1 ? 'it has' : 'they have' }} been read, this can’t be taken back.</template
        ></span
      >
    </p>
  </section>
</template>

<style scoped>
.ready {
  display: grid;
  gap: var(--space-4);
  padding: var(--space-5) var(--space-6);
  background: var(--sheet);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
ul {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(320px, 1fr));
  gap: 0 var(--space-7);
  max-height: 30vh;
  overflow: auto;
  list-style: none;
  padding: 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-4) var(--space-5);
}
</style>
