<script setup lang="ts">
import { computed, ref, shallowRef, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import { type Place, changesOf, differenceOf } from './dateCells'

/** One date, for one section, some or all: what it would do stands there before it is done. */
const props = defineProps<{ edition: number; answer: Schemas['DatesAnswer']; place: Place }>()
const emit = defineEmits<{ close: [] }>()

const row = computed(() =>
  props.answer.units.flatMap((unit) => unit.items).find((one) => one.item === props.place.item)!,
)
const at = computed(() => props.answer.sections.findIndex((section) => section.id === props.place.section))
const cell = computed(() => row.value.cells[at.value]!)
const present = computed(() => cell.value[props.place.field])
const difference = computed(() => differenceOf(cell.value, props.place.field))
/** What was read when one began: versions are named from it, so that somebody else's change is noticed. */
const read = shallowRef(props.answer)
const date = ref(present.value?.local.slice(0, 10) ?? '')
const time = ref(present.value?.local.slice(11, 16) ?? '12:00')
const chosen = ref<number[]>([props.place.section])
const adjust = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/differ')
const to = computed(() => (date.value && time.value ? { date: date.value, time: time.value } : null))
const unchanged = computed(
  () => chosen.value.length === 1 && `${date.value}T${time.value}` === present.value?.local.slice(0, 16),
)
const request = computed(() => {
  if (!to.value || unchanged.value) return null
  const changes = changesOf(props.place, read.value, chosen.value, to.value)
  return changes.length ? { changes } : null
})
const reach = useReach(request, adjust.preview)
const names = { opens: 'opens', due: 'is due' }

async function send(what: { changes: Schemas['DifferenceChange'][] } | null): Promise<void> {
  if (!what) return
  await adjust.run(what).then(
    () => emit('close'),
    () => undefined,
  )
}

/** Knowingly over what somebody else set meanwhile. */
function useMine(): void {
  read.value = props.answer
  void send(request.value)
}

const putBack = (sections: number[]) => send({ changes: changesOf(props.place, props.answer, sections, null) })
</script>

<template>
  <aside class="panel" aria-label="One date" @keydown.esc.stop.prevent="emit('close')">
    <form novalidate @submit.prevent="send(request)">
      <p class="line">
        <span
          ><b>{{ row.code }} {{ row.title }}</b> {{ names[place.field] }} on</span
        >
        <input v-model="date" aria-label="Date" type="date" />
        <input v-model="time" aria-label="Time" type="time" />
        <span>in</span>
        <label v-for="section in answer.sections" :key="section.id" class="one">
          <input v-model="chosen" type="checkbox" :value="section.id" />
          <SectionKey :letter="section.letter" :name="section.name" />
        </label>
        <button type="button" class="word-button" @click="chosen = answer.sections.map((section) => section.id)">
          all sections
        </button>
      </p>
      <ProblemNote v-if="adjust.problem.value" :problem="adjust.problem.value">
        <template v-if="adjust.problem.value.conflict">
          <p class="second">Now it says: {{ present?.words ?? 'no date' }}. Yours is still in the fields.</p>
          <v-btn @click="useMine">Set mine in its place</v-btn>
        </template>
      </ProblemNote>
      <p class="line">
        <v-btn type="submit" class="meant" :disabled="!request || adjust.busy.value">
          {{ chosen.length > 1 ? `Set it in ${chosen.length} sections` : 'Set this date' }}
        </v-btn>
        <v-btn v-if="difference" :disabled="adjust.busy.value" @click="putBack([place.section])">
          Put back<template v-if="difference.course">: {{ difference.course.words }}</template>
        </v-btn>
        <v-btn @click="emit('close')">Leave it as it is</v-btn>
        <span class="small" role="status">{{ reach }}</span>
      </p>
    </form>
  </aside>
</template>

<style scoped>
.panel {
  background: var(--sheet);
  border-top: var(--stroke-strong) solid var(--ink);
  padding: var(--space-5) var(--space-7);
}
form {
  display: grid;
  gap: var(--space-4);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-6);
}
.one {
  display: inline-flex;
  align-items: center;
  gap: var(--space-2);
}
.one input {
  accent-color: var(--ink);
  margin: 0;
}
</style>
