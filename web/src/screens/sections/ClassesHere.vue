<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { type Wanted, comingFirst } from './classes'
import TickField from '../../parts/fields/TickField.vue'

/** The classes of a section and what is taught in them. One is in view, and has what can be done with it beside it. */
const props = defineProps<{ section: Schemas['PaceSection']; canChange: boolean }>()
const emit = defineEmits<{ want: [wanted: Wanted] }>()
/** The number of the class in view; null: the first that is listed. */
const inView = defineModel<number | null>({ required: true })

const withPast = ref(false)
const body = ref<HTMLElement | null>(null)
const classes = computed(() => comingFirst(props.section.classes, withPast.value))
const at = computed(() => classes.value.find((one) => one.ordinal === inView.value) ?? classes.value[0])

async function step(by: number): Promise<void> {
  const next = classes.value[classes.value.indexOf(at.value!) + by]
  if (!next) return
  inView.value = next.ordinal
  await nextTick()
  body.value?.querySelector<HTMLElement>('tr.at .when button')?.focus()
}
</script>

<template>
  <p class="above">
    <TickField v-model="withPast" label="show past classes" />
    <button
      v-if="canChange"
      type="button"
      class="word-button"
      @click="emit('want', { what: 'add', of: classes[0] ?? null })"
    >
      add a class
    </button>
  </p>
  <table>
    <thead class="said-only">
      <tr>
        <th scope="col">Number</th>
        <th scope="col">When</th>
        <th scope="col">What is taught</th>
        <th v-if="canChange" scope="col">Change</th>
      </tr>
    </thead>
    <tbody ref="body" @keydown.down.prevent="step(1)" @keydown.up.prevent="step(-1)">
      <tr
        v-for="one in classes"
        :key="one.ordinal"
        :class="{ over: one.isOver, at: one === at }"
        :aria-current="one === at ? 'true' : undefined"
        @click="inView = one.ordinal"
      >
        <td class="number small">{{ one.ordinal }}</td>
        <td class="when">
          <button type="button" :tabindex="one === at ? 0 : -1" @focus="inView = one.ordinal">
            {{ one.words }}–{{ one.end }}
          </button>
          <span v-if="one.counts > 1" class="small"> counts {{ one.counts }}</span>
          <span v-if="one.own" class="small"> at another time</span>
        </td>
        <td class="lesson">{{ one.lesson || 'free' }}</td>
        <td v-if="canChange" class="does">
          <template v-if="one === at">
            <button type="button" class="word-button" @click="emit('want', { what: 'cancel', of: one })">cancel</button>
            <button type="button" class="word-button" @click="emit('want', { what: 'move', of: one })">move</button>
          </template>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-if="classes.length === 0" class="second none">No more classes in this term.</p>
</template>

<style scoped>
.above {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: var(--space-3) 0;
}
.none {
  padding: var(--space-5) 0;
}
table {
  border-collapse: collapse;
  width: 100%;
}
td {
  padding: var(--space-3) var(--space-5) var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
  vertical-align: baseline;
}
th {
  padding: 0;
}
tr {
  cursor: pointer;
}
.at {
  background: var(--wash);
  cursor: auto;
}
.number {
  width: 40px;
  padding-left: var(--space-3);
}
.when {
  white-space: nowrap;
}
.lesson {
  width: 50%;
}
.over {
  color: var(--ink-2);
}
.does {
  white-space: nowrap;
  min-width: 110px;
}
.does button + button {
  margin-left: var(--space-5);
}
</style>
