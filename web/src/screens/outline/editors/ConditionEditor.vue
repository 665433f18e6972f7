<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { usePinned } from '../../../foundation/commands/usePinned'
import { useReach } from '../../../foundation/commands/useReach'
import ProblemNote from '../../../parts/ProblemNote.vue'
import AdmitsNow from '../../../parts/condition/AdmitsNow.vue'
import ConditionFields from '../../../parts/condition/ConditionFields.vue'
import { draftOf, gateOf, newLeaf } from '../../../parts/condition/draft'
import CopyCondition from './CopyCondition.vue'

/** What a condition stands on. */
interface Place {
  of: 'unit' | 'lesson' | 'item'
  id: number
  lineage: string
  version: number
  /** The letter of the only section that it is of; null: of the course. */
  only: string | null
  gate: unknown
  inWords: string | null
}

/** A condition as indented lines in words, with whom it would let in. It is set, taken off, or set on others as well. */
const props = defineProps<{
  edition: number
  place: Place
  /** What is in the unit or lesson, and so cannot be asked for. */
  inside?: readonly string[]
}>()
const emit = defineEmits<{ close: [] }>()

const { version, overTheirs } = usePinned(props.place.version)
const read = draftOf(props.place.gate)
const stored = JSON.stringify(gateOf(read))
const draft = ref(read)
if (draft.value.root.parts.length === 0) draft.value.root.parts.push(newLeaf())
const gate = computed(() => gateOf(draft.value))

const edition = toRef(props, 'edition')
const setItem = useEditionCommand(edition, '/api/editions/{edition}/condition-item')
const setPlace = useEditionCommand(edition, '/api/editions/{edition}/set-conditions')
const isItem = props.place.of === 'item'
const set = isItem ? setItem : setPlace
type Gate = Schemas['ConditionItemRequest']['gate']
const changed = computed(() => gate.value !== undefined && JSON.stringify(gate.value) !== stored)
const itemRequest = computed(() =>
  changed.value && isItem ? { item: props.place.id, gate: gate.value as Gate, version: version.value } : null,
)
const placeRequest = computed(() =>
  changed.value && !isItem
    ? {
        conditions: [{ [props.place.of]: props.place.id, gate: gate.value as Gate, version: version.value }],
      }
    : null,
)
const request = computed(() => itemRequest.value ?? placeRequest.value)
const itemReach = useReach(itemRequest, setItem.preview)
const placeReach = useReach(placeRequest, setPlace.preview)

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  overTheirs(set.problem.value)
  void send()
}

async function send(): Promise<void> {
  if (!request.value) return emit('close')
  const sent = itemRequest.value ? setItem.run(itemRequest.value) : setPlace.run(placeRequest.value!)
  await sent.then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="editor" novalidate @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
    <ConditionFields
      v-model="draft"
      :edition="edition"
      :without="[place.lineage, ...(inside ?? [])]"
      :only="place.only"
      :before="place.lineage"
    />
    <AdmitsNow :edition="edition" :of="place.of" :place="place.id" :gate="gate" />
    <ProblemNote v-if="set.problem.value" :problem="set.problem.value">
      <template v-if="set.problem.value.conflict">
        <p class="second">Now it says: {{ place.inWords ?? 'no condition' }}</p>
        <v-btn @click="useMine">Use mine instead</v-btn>
      </template>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || set.busy.value">{{
        gate === null ? 'No condition' : 'Set this condition'
      }}</v-btn>
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{
        gate === undefined ? 'Finish each line, or take it out.' : itemReach || placeReach
      }}</span>
    </p>
    <CopyCondition
      v-if="place.gate && !changed"
      :edition="edition"
      :from="place.lineage"
      :gate="place.gate"
      @done="emit('close')"
    />
  </form>
</template>
