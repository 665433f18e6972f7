<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import SectionKey from '../../look/marks/SectionKey.vue'
import { standing } from './paceWords'
import TickField from '../../parts/fields/TickField.vue'

/** Which sections are drawn, where each stands, and how their lines are to be read. */
const props = defineProps<{ pace: Schemas['PaceAnswer']; off: number[]; withKey: boolean; withLast: boolean }>()
const emit = defineEmits<{ toggle: [section: number] }>()

const manners = computed(() => [
  { kind: 'taught', words: 'taught' },
  { kind: 'planned', words: 'as planned' },
  { kind: 'forecast', words: 'to come' },
  ...(props.pace.last && props.withLast ? [{ kind: 'last', words: props.pace.last }] : []),
])
</script>

<template>
  <ul class="sections">
    <li v-for="section in pace.sections" :key="section.id">
      <TickField :model-value="!off.includes(section.id)" @update:model-value="emit('toggle', section.id)">
        <SectionKey :letter="section.letter" :name="section.name" />
      </TickField>
      <span
        class="small"
        :class="{ accent: section.lacking > 0 || (section.behindBy ?? 0) > 0 }"
        :title="section.unplaced.join('\n')"
      >
        {{ standing(section, pace.unit) }}
      </span>
      <span class="small">{{
        section.lacking > 0
          ? `from ${section.unplaced[0]} on`
          : `through on ${section.finish?.words.split(',')[0] ?? 'no day'}, ${section.free} free`
      }}</span>
    </li>
    <li v-if="withKey" class="small manners" aria-hidden="true">
      <span v-for="one in manners" :key="one.kind">
        <svg width="22" height="6"><line x1="1" x2="22" y1="3" y2="3" :class="one.kind" /></svg> {{ one.words }}
      </span>
    </li>
  </ul>
</template>

<style scoped src="./manners.css"></style>
<style scoped>
.sections {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-4) var(--space-8);
}
.sections li {
  display: grid;
  align-content: start;
  max-width: 226px;
}
.manners line {
  stroke: var(--ink-2);
}
.manners {
  grid-template-columns: auto auto;
  gap: 0 var(--space-6);
  margin-left: auto;
  align-content: end;
}
.manners svg {
  vertical-align: middle;
}
</style>
