<script setup lang="ts">
import { toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useLevels } from '../../foundation/levels'
import ProblemNote from '../../parts/ProblemNote.vue'
import ChoiceField from '../../parts/fields/ChoiceField.vue'

/** What an item is for, and what is seen of it beforehand, in one sentence. */
const props = defineProps<{
  edition: number
  item: Schemas['ItemAnswer']
  /** The latest version known of it. */
  version: number
  canChange: boolean
}>()
const levels = useLevels()
const describe = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/describe-item')

function set(change: { purpose?: string; before?: string | null }): void {
  const { id, purpose, before } = props.item
  void describe.run({ item: id, purpose, before, ...change, version: props.version }).catch(() => undefined)
}
</script>

<template>
  <p class="line">
    <span>It is</span>
    <ChoiceField
      :model-value="item.purpose"
      label="Purpose"
      :disabled="!canChange || describe.busy.value"
      :choices="[
        { value: 'to-read', title: 'to read' },
        { value: 'practice', title: 'practice' },
        { value: 'for-marks', title: 'for marks' },
      ]"
      @update:model-value="set({ purpose: $event })"
    />
    <span v-if="item.hiddenUntilMet" class="second"
      >and unseen until its condition is met, so that nobody reads in advance what it asks</span
    >
    <template v-else>
      <span>and before it opens</span>
      <ChoiceField
        :model-value="item.before"
        label="What students see before it opens"
        :disabled="!canChange || describe.busy.value"
        :choices="[
          { value: null, title: `as its ${levels.unit.one} says` },
          { value: 'listed', title: 'listed: title and date' },
          { value: 'unseen', title: 'unseen' },
        ]"
        @update:model-value="set({ before: $event })"
      />
    </template>
  </p>
  <ProblemNote v-if="describe.problem.value" :problem="describe.problem.value" />
</template>
