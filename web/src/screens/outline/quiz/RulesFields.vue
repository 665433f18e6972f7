<script setup lang="ts">
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import type { WrittenRules } from './rows'

/** How a quiz is taken: its time, its attempts, what is shown when, what is mixed. */
const rules = defineModel<WrittenRules>({ required: true })
</script>

<template>
  <p class="line">
    <span>Time limit</span>
    <NumberField v-model="rules.limit" label="Minutes an attempt may take" :min="1" :max="600" optional />
    <span>minutes, empty for none.</span>
    <span class="next">Attempts</span>
    <NumberField v-model="rules.attempts" label="Attempts a student has" :min="1" :max="50" optional />
    <span>empty for any number, and</span>
    <ChoiceField
      v-model="rules.using"
      label="Which attempt counts"
      :choices="[
        { value: 'best', title: 'the best counts' },
        { value: 'latest', title: 'the latest counts' },
        { value: 'mean', title: 'the mean counts' },
      ]"
    />
  </p>
  <p class="line">
    <span>Students see their score and the answers</span>
    <ChoiceField
      v-model="rules.shown"
      label="When students see their score and the answers"
      :choices="[
        { value: 'at-once', title: 'at once' },
        { value: 'after-due', title: 'once it is past its due date' },
        { value: 'never', title: 'never' },
      ]"
    />
  </p>
  <p class="line">
    <span>In a new order for each attempt:</span>
    <TickField v-model="rules.mixesQuestions" label="the questions of a page" />
    <TickField v-model="rules.mixesOptions" label="the answers to choose from" />
  </p>
</template>

<style scoped>
.next {
  margin-left: var(--space-5);
}
</style>
