<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { another, draftsOf, slotsOf } from './timetable'
import type { Card } from './useSections'

/** When a section meets, a line for each time; what follows for its classes and dates stands there before it is so. */
const props = defineProps<{ edition: number; answer: Schemas['SectionsAnswer']; card: Card }>()
const emit = defineEmits<{ close: [] }>()

const drafts = ref(draftsOf(props.card.slots))
const version = props.card.version
const change = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/change-timetable')
const request = computed(() => {
  const slots = slotsOf(drafts.value)
  const same = JSON.stringify(slots) === JSON.stringify(slotsOf(draftsOf(props.card.slots)))
  return slots && !same ? { section: props.card.id, slots, version } : null
})
const reach = useReach(request, change.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await change.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="When it meets"
    :problem="change.problem.value"
    :reach="reach"
    meant="Meet at these times"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <SectionKey :letter="card.letter" :name="card.name" /> <span>meets</span>
      <button type="button" class="word-button" @click="drafts.push(another(answer))">one more time</button>
    </p>
    <div class="slots">
      <p v-for="(slot, n) in drafts" :key="n" class="slot">
        <select v-model="slot.day" :aria-label="`Day of time ${n + 1}`">
          <option v-for="day in answer.days" :key="day.label" :value="day.label">{{ day.words }}</option>
        </select>
        <template v-if="slot.own">
          <input v-model="slot.start" type="time" :aria-label="`Start of time ${n + 1}`" /> to
          <input v-model="slot.end" type="time" :aria-label="`End of time ${n + 1}`" />
          <button v-if="answer.periods.length" type="button" class="word-button small" @click="slot.own = false">
            in periods
          </button>
        </template>
        <template v-else>
          <label v-for="period in answer.periods" :key="period.name" :title="`${period.start}–${period.end}`"
            ><input v-model="slot.periods" type="checkbox" :value="period.name" />{{ period.name }}</label
          >
          <button type="button" class="word-button small" @click="slot.own = true">at times of its own</button>
        </template>
        <label
          >counts
          <input v-model.number="slot.counts" type="number" min="1" step="1" :aria-label="`Counts, time ${n + 1}`"
        /></label>
        <label>from <input v-model="slot.from" type="date" :aria-label="`From, time ${n + 1}`" /></label>
        <label>until <input v-model="slot.until" type="date" :aria-label="`Until, time ${n + 1}`" /></label>
        <button type="button" class="word-button" @click="drafts.splice(n, 1)">
          no longer<span class="said-only">: time {{ n + 1 }}</span>
        </button>
      </p>
      <p v-if="drafts.length === 0" class="second">It does not meet at all: give it a time.</p>
    </div>
  </CommandPanel>
</template>

<style scoped>
.slots {
  max-height: 260px;
  overflow: auto;
}
.slot {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
  padding: var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.slot label {
  white-space: nowrap;
}
</style>
