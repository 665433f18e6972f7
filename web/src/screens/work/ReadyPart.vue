<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { useSend } from '../../foundation/commands/useSend'
import { keys } from '../../foundation/keys'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import TickField from '../../parts/fields/TickField.vue'

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
const post = (preview: boolean, wait: boolean, works: number[], key?: string) =>
  ask(
    api.POST('/api/sections/{section}/give-back-ready', {
      params: { path: { section: props.section.section }, query: { preview }, header: key ? once(key) : {} },
      body: { works, wait },
    }),
  )
watch(
  () => chosen.value.join(),
  async (some) => {
    sentence.value = ''
    if (!some) return
    const shown = await post(true, false, chosen.value).then(
      (answer) => answer.sentence,
      (error) => problemOf(error).title,
    )
    if (some === chosen.value.join()) sentence.value = shown
  },
  { immediate: true },
)

const { run, busy, problem } = useSend(
  ({ wait, works }: Schemas['GiveBackReadyRequest'], key) => post(false, wait ?? false, works, key),
  [keys.edition(props.edition)],
)
async function send(wait: boolean): Promise<void> {
  if (chosen.value.length === 0 || !(await run({ wait, works: chosen.value }))) return
  if (pieces.value.length === 0) emit('close')
}
</script>

<template>
  <section class="ready" aria-label="Ready to go back" @keydown.esc.stop="emit('close')">
    <ul>
      <li v-for="piece in pieces" :key="piece.work">
        <TickField
          :model-value="chosen.includes(piece.work)"
          :label="`${piece.name} · ${piece.code} · ${piece.ready!.words}`"
          @update:model-value="tick(piece.work, $event === true)"
        />
      </li>
    </ul>
    <ProblemNote v-if="problem" :problem="problem" />
    <p class="ways">
      <v-btn class="meant" :disabled="busy || chosen.length === 0" @click="send(false)">{{
        chosen.length ? `Give back ${counted(chosen.length, 'piece')}` : 'Give back'
      }}</v-btn>
      <v-btn :disabled="busy || chosen.length === 0" @click="send(true)">Not ready after all</v-btn>
      <v-btn @click="emit('close')">Not yet</v-btn>
      <span class="small" role="status"
        >{{ sentence }} Once {{ chosen.length === 1 ? 'it has' : 'they have' }} been read, this can’t be taken
        back.</span
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
