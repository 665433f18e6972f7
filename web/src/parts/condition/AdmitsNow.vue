<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Schemas, api, ask } from '../../foundation/api/client'
import { useLook } from '../../foundation/commands/useLook'
import { useViewpoint } from '../../foundation/useViewpoint'
import { joined } from '../../foundation/words'
import SectionKey from '../../look/marks/SectionKey.vue'

/** Whom a condition would let in if it were set: how many, by section and by name; and what would be wrong with it. */
const props = defineProps<{ edition: number; of: 'unit' | 'lesson' | 'item'; place: number; gate: unknown }>()

const viewpoint = useViewpoint()
const request = computed(() =>
  props.gate ? { of: props.of, place: props.place, gate: props.gate as Schemas['WouldAdmitRequest']['gate'] } : null,
)
const { answer, problem } = useLook(
  request,
  (body, signal) =>
    ask(
      api.POST('/api/editions/{edition}/would-admit', {
        params: { path: { edition: props.edition }, query: viewpoint.query.value },
        body,
        signal,
      }),
    ),
  { keeps: true },
)
const sections = computed(() => answer.value?.sections ?? [])
const sum = (of: (one: Schemas['AdmittedInSection']) => number) =>
  sections.value.reduce((total, one) => total + of(one), 0)
const admitted = computed(() => sum((one) => one.admitted.length))
const all = computed(() => sum((one) => one.admitted.length + one.others.length))
const named = ref<number | null>(null)
const shown = computed(() => sections.value.find((one) => one.section === named.value) ?? null)
const names = (students: Schemas['NamedStudent'][]) => joined(students.map((one) => one.name)) || 'nobody'
</script>

<template>
  <div v-if="gate" class="admits" role="status">
    <p v-if="problem" class="second">{{ problem.title }}</p>
    <template v-else-if="answer">
      <p v-for="fault in answer.atFault" :key="fault" class="fault">{{ fault }}</p>
      <p class="line">
        <b>{{ viewpoint.query.value.at ? 'Then' : 'Now' }} it would let in {{ admitted }} of {{ all }}.</b>
        <button
          v-for="one in sections"
          :key="one.section"
          type="button"
          class="word-button small"
          :aria-expanded="named === one.section"
          @click="named = named === one.section ? null : one.section"
        >
          <SectionKey :letter="one.letter" :name="one.name" /> {{ one.admitted.length }} of
          {{ one.admitted.length + one.others.length }}<span class="said-only">, by name</span>
        </button>
      </p>
      <p v-if="shown" class="small"><b>Let in:</b> {{ names(shown.admitted) }}.</p>
      <p v-if="shown" class="small second"><b>Still waiting:</b> {{ names(shown.others) }}.</p>
    </template>
    <p v-else class="small second">Counting who would get in …</p>
  </div>
</template>

<style scoped>
.admits {
  display: grid;
  gap: var(--space-2);
  max-width: 100ch;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-6);
}
.fault {
  color: var(--accent);
}
</style>
