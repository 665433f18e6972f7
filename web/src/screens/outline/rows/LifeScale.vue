<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import SectionKey from '../../../look/marks/SectionKey.vue'

/** What the right half of the rows is read by: the weeks of the term, or the sections one beside the other. */
const props = defineProps<{
  ribbon: Schemas['RibbonAnswer'] | null
  sections: Schemas['OutlineSection'][]
  show: 'lines' | 'dates' | 'handed-in'
}>()
const weeks = computed(() => (props.ribbon?.weeks ?? []).filter((_, n, all) => all.length <= 18 || n % 2 === 0))
</script>

<template>
  <div class="scale small" aria-hidden="true">
    <template v-if="show === 'lines' && ribbon">
      <span
        v-for="(week, n) in weeks"
        :key="week.at"
        class="week"
        :style="{ left: `${(100 * week.at) / ribbon.days}%` }"
        ><span :class="{ often: n % 4 > 0 }">{{ n % 2 === 0 ? week.monday : '' }}</span></span
      >
    </template>
    <div v-else-if="show !== 'lines'" class="columns">
      <SectionKey v-for="one in sections.slice(0, 6)" :key="one.id" :letter="one.letter" :name="one.name" />
    </div>
  </div>
</template>

<style scoped>
.scale {
  position: relative;
  height: 20px;
}
.week {
  position: absolute;
  padding-left: var(--space-2);
  border-left: var(--stroke-hair) solid var(--hair);
  white-space: nowrap;
}
@media (max-width: 900px) {
  .often {
    display: none;
  }
}
.columns {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: 1fr;
  gap: var(--space-4);
}
</style>
