<script setup lang="ts">
import type { Schemas } from '../../foundation/api/client'

/** A condition as indented lines: what each part asks, how it came out, and since when. */
defineProps<{ condition: Schemas['WhyCondition'] }>()

const outcomes: Record<string, string> = { met: 'yes', 'not-met': 'not yet', waived: 'not needed' }
</script>

<template>
  <div>
    <ul class="lines">
      <li
        v-for="(line, at) in condition.lines"
        :key="at"
        :class="{ unmet: line.outcome === 'not-met' }"
        :style="{ paddingLeft: `calc(${line.depth} * var(--space-6))` }"
      >
        <span>{{ line.words }}</span>
        <span class="small outcome">{{
          [outcomes[line.outcome], line.since ? `since ${line.since.words}` : ''].filter(Boolean).join(', ')
        }}</span>
        <span v-if="line.note" class="small second note">{{ line.note }}</span>
      </li>
    </ul>
    <p v-if="condition.isOpened" class="small">Somebody opened it for this student, whatever the condition says.</p>
    <p v-else-if="condition.metAt" class="small">Met on {{ condition.metAt.words }}; it stays met.</p>
  </div>
</template>

<style scoped>
.lines {
  list-style: none;
}
.lines li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 var(--space-5);
  padding-block: var(--space-2);
}
.outcome {
  color: var(--ink-2);
}
.unmet .outcome {
  color: var(--accent);
}
.note {
  grid-column: 1 / -1;
}
</style>
