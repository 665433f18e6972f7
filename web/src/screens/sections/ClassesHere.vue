<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { type Wanted, comingFirst } from './classes'
import TickField from '../../parts/fields/TickField.vue'

/** The classes of a section, with what is taught in them. */
const props = defineProps<{ section: Schemas['PaceSection']; canChange: boolean }>()
const emit = defineEmits<{ want: [wanted: Wanted] }>()

const withPast = ref(false)
const classes = computed(() => comingFirst(props.section.classes, withPast.value))
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
    <tbody>
      <tr v-for="one in classes" :key="one.ordinal" :class="{ over: one.isOver }">
        <td class="number small">{{ one.ordinal }}</td>
        <td class="when">
          {{ one.words }}–{{ one.end }}
          <span v-if="one.counts > 1" class="small">counts {{ one.counts }}</span>
          <span v-if="one.own" class="small"> own time</span>
        </td>
        <td class="lesson">{{ one.lesson || 'free' }}</td>
        <td v-if="canChange" class="does">
          <button type="button" class="word-button" @click="emit('want', { what: 'cancel', of: one })">cancel</button>
          <button type="button" class="word-button" @click="emit('want', { what: 'move', of: one })">move</button>
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
.number {
  width: 32px;
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
}
.does button + button {
  margin-left: var(--space-5);
}
</style>
