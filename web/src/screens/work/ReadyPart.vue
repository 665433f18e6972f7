<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { type Problem, type Schemas, api, ask, once, problemOf } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import TickField from '../../parts/fields/TickField.vue'

/** What is ready in a section goes back together: which pieces, and what opens by it, before. */
const props = defineProps<{ edition: number; section: Schemas['WorkSection'] }>()
const emit = defineEmits<{ close: [] }>()

const client = useQueryClient()
const pieces = computed(() =>
  props.section.pieces.flatMap((piece) => (piece.ready && piece.work !== null ? [{ ...piece, work: piece.work }] : [])),
)
/** Those that stay. */
const left = ref<readonly number[]>([])
const chosen = computed(() => pieces.value.map((piece) => piece.work).filter((work) => !left.value.includes(work)))
const sentence = ref('')
const problem = ref<Problem | null>(null)
const busy = ref(false)

const tick = (work: number, isChosen: boolean) =>
  (left.value = isChosen ? left.value.filter((one) => one !== work) : [...left.value, work])
const post = (preview: boolean, wait: boolean, key?: string) =>
  ask(
    api.POST('/api/sections/{section}/give-back-ready', {
      params: { path: { section: props.section.section }, query: { preview }, header: key ? once(key) : {} },
      body: { works: chosen.value, wait },
    }),
  )
watch(
  () => chosen.value.join(),
  async (some) => {
    sentence.value = ''
    if (!some) return
    const shown = await post(true, false).then(
      (answer) => answer.sentence,
      (error) => problemOf(error).title,
    )
    if (some === chosen.value.join()) sentence.value = shown
  },
  { immediate: true },
)

let key: string | null = null
async function send(wait: boolean): Promise<void> {
  if (busy.value || chosen.value.length === 0) return
  busy.value = true
  problem.value = null
  key ??= crypto.randomUUID()
  try {
    await post(false, wait, key)
    key = null
    await client.invalidateQueries({ queryKey: keys.edition(props.edition) })
    if (pieces.value.length === 0) emit('close')
  } catch (error) {
    problem.value = problemOf(error)
    // Sent again after a lost connection it is done once; refused, it is another request.
    if (problem.value.status > 0 && problem.value.status < 500) key = null
  } finally {
    busy.value = false
  }
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
