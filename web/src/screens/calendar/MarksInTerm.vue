<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/commands/useEditionCommand'
import ProblemNote from '../../parts/ProblemNote.vue'
import { goneOf } from './yearSheet'

/** The days of a term that are marked: closed, extra or special. */
const props = defineProps<{ calendar: Schemas['CalendarAnswer'] }>()
const emit = defineEmits<{ edit: [mark: Schemas['CalendarMark']]; done: [] }>()

const kindWords: Record<string, string> = { closure: 'closed', extra: 'extra day', special: 'special day' }
const mark = useTermCommand(
  computed(() => props.calendar.term),
  '/api/terms/{term}/mark-days',
)
const takeOut = (one: Schemas['CalendarMark']) =>
  mark.run({ marks: [goneOf(one)] }).then(
    () => emit('done'),
    () => undefined,
  )
</script>

<template>
  <section aria-labelledby="marks-title">
    <h2 id="marks-title" class="ruled-head">Marked in this term</h2>
    <p v-if="calendar.marks.length === 0" class="second none">
      Nothing yet: every {{ calendar.weekdays.length === 5 ? 'weekday' : 'teaching day' }} of the term has classes. Drag
      over days to close the school, or import its closures from a file.
    </p>
    <ProblemNote v-if="mark.problem.value" :problem="mark.problem.value" />
    <ul class="ruled">
      <li v-for="one in calendar.marks" :key="one.id" class="mark" :class="{ sleeps: one.sleeps }">
        <span>{{ one.words }}</span>
        <span
          ><b>{{ one.name || 'Special day' }}</b
          >{{ ' '
          }}<span class="small"
            >{{ kindWords[one.kind] }}{{ one.facts ? `, ${one.facts}` : ''
            }}{{ one.sleeps ? '; sleeps: no class day' : '' }}</span
          ></span
        >
        <span v-if="calendar.canChange" class="ways">
          <button type="button" class="word-button" @click="emit('edit', one)">
            change<span class="said-only">: {{ one.words }}</span>
          </button>
          <button type="button" class="word-button" :disabled="mark.busy.value" @click="takeOut(one)">
            take out<span class="said-only">: {{ one.words }}</span>
          </button>
        </span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.none {
  padding: var(--space-5) 0;
}
.mark {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.mark b {
  font-weight: 600;
}
.sleeps {
  color: var(--ink-2);
}
.ways {
  display: flex;
  gap: var(--space-5);
}
</style>
