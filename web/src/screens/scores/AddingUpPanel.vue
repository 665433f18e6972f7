<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { usePinned } from '../../foundation/commands/usePinned'
import { useReach } from '../../foundation/commands/useReach'
import { useLevels } from '../../foundation/levels'
import CommandPanel from '../../parts/CommandPanel.vue'
import NumberField from '../../parts/fields/NumberField.vue'
import OneOfField from '../../parts/fields/OneOfField.vue'
import { type Answer, purposeWords } from './scoreLines'

/** How scores come to a total: how it is weighted, which of the lowest are left out, and what is missing. */
const props = defineProps<{ edition: number; answer: Answer }>()
const emit = defineEmits<{ close: [] }>()

const levels = useLevels()
const before = props.answer.addingUp
const { version, overTheirs } = usePinned(props.answer.version)
const by = ref(before.by)
const missing = ref(before.missingAsZero ? 'zero' : 'open')
const units = ref(
  before.units.map((unit) => ({ ...unit }) as { unit: number; weight: number | null; drop: number | null }),
)
const purposes = ref(before.purposes.map((one) => ({ ...one }) as { purpose: string; weight: number | null }))
const titleOf = (unit: number) => props.answer.units.find((one) => one.unit === unit)?.title ?? ''

const add = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/add-up-scores')
const wanted = computed(() => ({
  by: by.value,
  units: units.value.map((one) => ({ unit: one.unit, weight: one.weight ?? 0, drop: one.drop ?? 0 })),
  purposes: purposes.value.map((one) => ({ purpose: one.purpose, weight: one.weight ?? 0 })),
  missingAsZero: missing.value === 'zero',
}))
const request = computed(() =>
  JSON.stringify(wanted.value) === JSON.stringify(before) ? null : { addingUp: wanted.value, version: version.value },
)
const reach = useReach(request, add.preview)

function useMine(): void {
  overTheirs(add.problem.value)
  void send()
}

async function send(): Promise<void> {
  if (!request.value) return
  await add.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <CommandPanel
    label="How scores are added up"
    :problem="add.problem.value"
    :reach="reach"
    meant="Set how scores are added up"
    :disabled="!request || add.busy.value"
    @submit="send"
    @close="emit('close')"
  >
    <p class="line">
      <span>A total is</span>
      <OneOfField
        v-model="by"
        label="A total is"
        :choices="[
          { value: 'nothing', title: 'all points together' },
          { value: 'unit', title: `weighted by ${levels.unit.one}` },
          { value: 'purpose', title: 'weighted by purpose' },
        ]"
      />
    </p>
    <p class="line">
      <span>What is due and not handed in</span>
      <OneOfField
        v-model="missing"
        label="What is due and not handed in"
        :choices="[
          { value: 'open', title: 'is left out' },
          { value: 'zero', title: 'counts as 0' },
        ]"
      />
    </p>
    <ul v-if="by === 'purpose'" aria-label="Weights">
      <li v-for="one in purposes" :key="one.purpose" class="line">
        <span class="what">{{ purposeWords(one.purpose) }}</span>
        <span>weight</span>
        <NumberField
          v-model="one.weight"
          :label="`Weight of what is ${purposeWords(one.purpose)}`"
          :max="10000"
          :decimals="2"
        />
      </li>
    </ul>
    <ul class="units" :aria-label="`Each ${levels.unit.one}`">
      <li v-for="one in units" :key="one.unit" class="line">
        <span class="what">{{ titleOf(one.unit) }}</span>
        <template v-if="by === 'unit'">
          <span>weight</span>
          <NumberField v-model="one.weight" :label="`Weight of ${titleOf(one.unit)}`" :max="10000" :decimals="2" />
        </template>
        <span>leave out the lowest</span>
        <NumberField v-model="one.drop" :label="`How many of the lowest ${titleOf(one.unit)} leaves out`" :max="20" />
      </li>
    </ul>
    <template #problem><v-btn v-if="add.problem.value?.conflict" @click="useMine">Use mine instead</v-btn></template>
  </CommandPanel>
</template>

<style scoped>
ul {
  list-style: none;
}
.units {
  max-height: 220px;
  overflow: auto;
}
.what {
  flex: 0 0 220px;
}
</style>
