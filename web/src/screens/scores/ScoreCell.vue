<script setup lang="ts">
import { computed } from 'vue'
import { useViewpoint } from '../../foundation/useViewpoint'
import { type Answer, type Cell, type Student, type Told, cellWords } from './scoreLines'

/** How one student stands with one item: it leads to what was handed in, and to why it is open to them or not. */
const props = defineProps<{
  section: number
  student: Student
  item: Answer['items'][number]
  cell: Cell
  told: Told
}>()
const emit = defineEmits<{ why: [] }>()

const viewpoint = useViewpoint()
/** Where the piece can be read. */
const piece = computed(() =>
  ['to read', 'given back', 'to try again'].includes(props.cell.words)
    ? {
        name: 'work',
        query: {
          ...viewpoint.query.value,
          section: props.section,
          item: props.item.item,
          student: props.student.student,
          back: props.cell.words === 'to read' ? undefined : 'too',
        },
      }
    : null,
)
</script>

<template>
  <router-link v-if="piece" :to="piece" class="words">{{ cellWords(cell, told) }}</router-link>
  <span v-else class="words">{{ cellWords(cell, told) }}</span>
  <span v-if="cell.late" class="small">{{ cell.late }}</span>
  <button
    type="button"
    tabindex="-1"
    class="word-button small why"
    :aria-label="`why: ${item.code} ${item.title}, ${student.name}`"
    @click="emit('why')"
  >
    why
  </button>
</template>

<style scoped>
a.words {
  color: inherit;
  text-decoration: none;
}
a.words:hover,
a.words:focus-visible {
  text-decoration: underline;
}
/* It shows in the cell that is pointed at, or that has the focus. */
.why {
  margin-left: auto;
  padding-right: var(--space-4);
  opacity: 0;
}
:is(:hover, :focus, :focus-within) > .why {
  opacity: 1;
}
</style>
