<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import { capital, useLevels } from '../../../foundation/levels'
import ProblemNote from '../../../parts/ProblemNote.vue'
import { type Condition, type Part, conditionOf, deedsFor, gateOf } from './condition'
import type { ItemRow } from '../outlineRows'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'

/** One condition as a sentence whose parts are changed by choosing others. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; items: ItemRow[] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const stored = JSON.stringify(props.item.condition ?? null)
const { version, overTheirs } = usePinned(props.item.version)
const known = conditionOf(props.item.condition)
const condition = ref<Condition>(known ?? { join: 'all', parts: [] })
if (known && condition.value.parts.length === 0) condition.value.parts.push({ item: '', is: 'returned' })
/** What makes sense first: what comes shortly before it, then the rest in order. */
const others = computed(() => {
  const own = props.items.findIndex((one) => one.lineage === props.item.lineage)
  const choice = (one: ItemRow) => ({ value: one.lineage, title: `${one.code} ${one.title}`, note: one.kind })
  const near = props.items.slice(Math.max(0, own - 5), Math.max(0, own)).reverse()
  return [...near, ...props.items.filter((one, at) => at !== own && !near.includes(one))].map(choice)
})
const deedsOf = (lineage: string) => deedsFor(props.items.find((one) => one.lineage === lineage)?.options ?? [])
/** What was asked of another item may not be asked of this one. */
function name(part: Part, lineage: string): void {
  part.item = lineage
  const deeds = deedsOf(lineage)
  if (!deeds.some(({ value }) => value === part.is)) part.is = deeds[0]!.value
}
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
      {{ item.conditionInWords }} This is more than can be changed here; a new condition would replace it.
    </p>
    <p v-for="(part, at) in condition.parts" :key="at" class="line">
      <span v-if="at === 0">Opens when, of</span>
      <ChoiceField
        v-else
        v-model="condition.join"
        label="All of them, or any"
        :choices="[
          { value: 'all', title: 'and when, of' },
          { value: 'any', title: 'or when, of' },
        ]"
      />
      <ChoiceField
        :model-value="part.item"
        :label="`${capital(levels.item.one)} ${at + 1}`"
        :placeholder="`choose ${levels.item.a}`"
        :choices="others"
        @update:model-value="name(part, $event)"
      />
      <ChoiceField v-model="part.is" :label="`What must have happened, ${at + 1}`" :choices="deedsOf(part.item)" />
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
        <v-btn @click="useMine">Use mine instead</v-btn>
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
