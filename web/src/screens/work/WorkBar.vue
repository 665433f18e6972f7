<script setup lang="ts">
import { useLevels } from '../../foundation/levels'
import ChoiceField from '../../parts/fields/ChoiceField.vue'
import TickField from '../../parts/fields/TickField.vue'
import { type Order, type View, VIEWS, ordersOf } from './workOrder'

/** What Work shows, in what order, and what can be done with all of it. */
defineProps<{
  items: { value: number | null; title: string }[]
  /** How many pieces are listed. */
  pieces: number
  /** How many were read and can go back together. */
  ready: number
  isReadyOpen: boolean
  /** How many students have nothing open. */
  idle: number
}>()
const emit = defineEmits<{ ready: []; print: [] }>()
const view = defineModel<View>('view', { required: true })
const order = defineModel<Order>('order', { required: true })
/** Of one item only; null: of all. */
const item = defineModel<number | null>('item', { required: true })
const givenBackToo = defineModel<boolean>('givenBackToo', { required: true })
const levels = useLevels()
</script>

<template>
  <p class="bar">
    <span class="orders" role="group" aria-label="What is shown">
      <button v-for="(words, one) in VIEWS" :key="one" type="button" :aria-pressed="view === one" @click="view = one">
        {{ words }}<template v-if="one === 'nothing-open' && idle"> ({{ idle }})</template>
      </button>
    </span>
    <template v-if="view === 'handed-in'">
      <span class="orders" role="group" aria-label="Order">
        <span>first</span>
        <button
          v-for="one in ordersOf(levels.item.one)"
          :key="one.value"
          type="button"
          :aria-pressed="order === one.value"
          @click="order = one.value"
        >
          {{ one.title }}
        </button>
      </span>
      <span class="which">
        <ChoiceField v-if="items.length > 2" v-model="item" label="Which work" :choices="items" />
        <button
          v-if="ready"
          type="button"
          class="word-button small"
          :aria-expanded="isReadyOpen"
          @click="emit('ready')"
        >
          {{ ready }} ready: give back together
        </button>
        <button v-if="pieces" type="button" class="word-button small" @click="emit('print')">
          print {{ pieces === 1 ? 'this piece' : `these ${pieces}` }}
        </button>
      </span>
      <TickField v-model="givenBackToo" class="tick" label="show what was given back" />
    </template>
  </p>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-8);
  padding-bottom: var(--space-3);
  border-bottom: var(--stroke-hair) solid var(--ink);
}
.orders {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
}
.orders > * {
  color: var(--ink-2);
}
.orders button {
  padding-bottom: var(--space-1);
  border-bottom: var(--stroke-strong) solid transparent;
}
.orders [aria-pressed='true'] {
  color: var(--ink);
  border-color: var(--ink);
}
.which {
  display: inline-flex;
  align-items: baseline;
  gap: var(--space-5);
  margin-left: auto;
}
</style>
