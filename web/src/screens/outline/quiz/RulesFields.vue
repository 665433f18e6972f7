<script setup lang="ts">
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import NumberField from '../../../parts/fields/NumberField.vue'
import TickField from '../../../parts/fields/TickField.vue'
import { WHEN_SHOWN, type WrittenRules, scoreTimes, showAnswers } from './rows'

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
    <span>Students see the answers</span>
    <ChoiceField
      :model-value="rules.shown"
      label="When students see the answers"
      :choices="[...WHEN_SHOWN]"
      @update:model-value="showAnswers(rules, $event)"
    />
    <span>and their score</span>
    <ChoiceField
      :model-value="rules.scoreShown ?? rules.shown"
      label="When students see their score"
      :choices="scoreTimes(rules)"
      @update:model-value="rules.scoreShown = $event"
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
