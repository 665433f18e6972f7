<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/useEditionCommand'
import { useReach } from '../../foundation/useReach'
import SectionKey from '../../look/marks/SectionKey.vue'
import CommandPanel from '../../parts/CommandPanel.vue'
import { another, draftsOf, slotsOf } from './timetable'
import type { Card } from './useSections'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import DateField from '../../parts/fields/DateField.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import TickField from '../../parts/fields/TickField.vue'
import TimeField from '../../parts/fields/TimeField.vue'

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
    meant="Save the timetable"
    :disabled="!request || change.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <SectionKey :letter="card.letter" :name="card.name" /> <span>meets</span>
      <button type="button" class="word-button" @click="drafts.push(another(answer))">add a time</button>
    </p>
    <div class="slots">
      <p v-for="(slot, n) in drafts" :key="n" class="slot">
        <ChoiceField
          v-model="slot.day"
          :label="`Day of time ${n + 1}`"
          :choices="answer.days.map((day) => ({ value: day.label, title: day.words }))"
        />
        <template v-if="slot.own">
          <TimeField v-model="slot.start" :label="`Start of time ${n + 1}`" /> to
          <TimeField v-model="slot.end" :label="`End of time ${n + 1}`" />
          <button v-if="answer.periods.length" type="button" class="word-button small" @click="slot.own = false">
            in periods
          </button>
        </template>
        <template v-else>
          <TickField
            v-for="period in answer.periods"
            :key="period.name"
            v-model="slot.periods"
            :value="period.name"
            :label="period.name"
            :title="`${period.start}–${period.end}`"
          />
          <button type="button" class="word-button small" @click="slot.own = true">own times</button>
        </template>
        <span>counts</span>
        <NumberField
          :model-value="slot.counts || null"
          :label="`Counts, time ${n + 1}`"
          :min="1"
          :max="10"
          @update:model-value="slot.counts = $event ?? 0"
        />
        <span>from</span>
        <DateField v-model="slot.from" :label="`From, time ${n + 1}`" placeholder="the start" />
        <span>until</span>
        <DateField v-model="slot.until" :label="`Until, time ${n + 1}`" placeholder="the end" />
        <button type="button" class="word-button" @click="drafts.splice(n, 1)">
          take out<span class="said-only">: time {{ n + 1 }}</span>
        </button>
      </p>
      <p v-if="drafts.length === 0" class="second">It does not meet at all yet: add a time.</p>
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
</style>
