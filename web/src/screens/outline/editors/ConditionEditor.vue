<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/useEditionCommand'
import { usePinned } from '../../../foundation/usePinned'
import { useReach } from '../../../foundation/useReach'
import { capital, useLevels } from '../../../foundation/levels'
import ProblemNote from '../../../parts/ProblemNote.vue'
import { type Condition, conditionOf, deedWords, gateOf } from './condition'
import type { ItemRow } from '../outlineRows'

/** One condition as a sentence whose parts are changed by choosing others. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; items: ItemRow[] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const stored = JSON.stringify(props.item.condition ?? null)
const { version, overTheirs } = usePinned(props.item.version)
const known = conditionOf(props.item.condition)
const condition = ref<Condition>(known ?? { join: 'all', parts: [] })
if (known && condition.value.parts.length === 0) condition.value.parts.push({ item: '', is: 'returned' })
const others = computed(() => props.items.filter((one) => one.lineage !== props.item.lineage))
const set = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/condition-item')
const gate = computed(() => gateOf(condition.value))
const request = computed(() =>
  JSON.stringify(gate.value) === stored ? null : { item: props.item.id, gate: gate.value, version: version.value },
)
const reach = useReach(request, set.preview)

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(set.problem.value)
  void send()
}

async function send(): Promise<void> {
  if (!request.value) return emit('close')
  await set.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}

function drop(at: number): void {
  condition.value.parts.splice(at, 1)
}
</script>

<template>
  <form class="editor" @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
    <p v-if="!known" class="second">
      {{ item.conditionInWords }} This says more than can be changed here; a new condition would stand in its place.
    </p>
    <p v-for="(part, at) in condition.parts" :key="at" class="line">
      <span v-if="at === 0">Opens when, of</span>
      <select v-else v-model="condition.join" aria-label="How the parts hold together">
        <option value="all">and when, of</option>
        <option value="any">or when, of</option>
      </select>
      <select v-model="part.item" class="wide" :aria-label="`${capital(levels.item.one)} ${at + 1}`">
        <option value="">– choose {{ levels.item.a }} –</option>
        <option v-for="one in others" :key="one.id" :value="one.lineage">{{ one.code }} {{ one.title }}</option>
      </select>
      <select v-model="part.is" :aria-label="`What must be so, ${at + 1}`">
        <option v-for="(words, deed) in deedWords" :key="deed" :value="deed">{{ words }}</option>
      </select>
      <button type="button" class="word-button small" @click="drop(at)">take out</button>
    </p>
    <p>
      <button type="button" class="word-button" @click="condition.parts.push({ item: '', is: 'returned' })">
        {{ condition.parts.length ? 'and something else' : 'set a condition' }}
      </button>
    </p>
    <ProblemNote v-if="set.problem.value" :problem="set.problem.value">
      <template v-if="set.problem.value.conflict">
        <p class="second">Now it says: {{ item.conditionInWords ?? 'no condition' }}</p>
        <v-btn @click="useMine">Set mine in its place</v-btn>
      </template>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || set.busy.value">{{
        gate ? 'Set this condition' : 'No condition'
      }}</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>
