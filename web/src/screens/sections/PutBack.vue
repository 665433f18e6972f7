<script setup lang="ts">
import { computed, toRef } from 'vue'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import ProblemNote from '../../parts/ProblemNote.vue'
import type { Difference } from './useSections'

/** One thing a section does differently, and the click that puts it back. */
const props = defineProps<{ edition: number; section: number; difference: Difference; canChange: boolean }>()

const edition = toRef(props, 'edition')
const classes = useEditionCommand(edition, '/api/editions/{edition}/change-classes')
const differ = useEditionCommand(edition, '/api/editions/{edition}/differ')
const orderUnit = useEditionCommand(edition, '/api/editions/{edition}/order-unit')
const orderLesson = useEditionCommand(edition, '/api/editions/{edition}/order-lesson')
const removeUnit = useEditionCommand(edition, '/api/editions/{edition}/remove-unit')
const removeLesson = useEditionCommand(edition, '/api/editions/{edition}/remove-lesson')
const removeItem = useEditionCommand(edition, '/api/editions/{edition}/remove-item')
const commands = [classes, differ, orderUnit, orderLesson, removeUnit, removeLesson, removeItem]
const busy = computed(() => commands.some((command) => command.busy.value))
const problem = computed(() => commands.map((command) => command.problem.value).find(Boolean) ?? null)

function putBack(): Promise<unknown> {
  const { section, difference } = props
  const { version } = difference
  if (difference.kind === 'class') return classes.run({ section, change: null, putBack: difference.seq, version })
  if (difference.kind === 'order')
    return difference.of === 'unit'
      ? orderUnit.run({ section, unit: difference.target, place: null, version })
      : orderLesson.run({ section, lesson: difference.target, after: null, version })
  const { of, target, field } = difference
  if (difference.kind === 'own')
    return of === 'unit'
      ? removeUnit.run({ unit: target, version })
      : of === 'lesson'
        ? removeLesson.run({ lesson: target, version })
        : removeItem.run({ item: target, version })
  return differ.run({
    changes: [{ section, of: of!, target, field: field!, putBack: true, value: null, version }],
  })
}
</script>

<template>
  <p class="line">
    <span
      ><b>{{ difference.title }}</b> {{ difference.words
      }}<span v-if="difference.sleeps" class="small">; it is not there any more</span></span
    >
    <button
      v-if="canChange"
      type="button"
      class="word-button"
      :disabled="busy"
      @click="putBack().catch(() => undefined)"
    >
      {{ difference.kind === 'own' ? 'take out' : 'put back'
      }}<span class="said-only">: {{ difference.title }} {{ difference.words }}</span>
    </button>
  </p>
  <ProblemNote v-if="problem" :problem="problem" />
</template>

<style scoped>
.line {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: var(--space-5);
}
.line b {
  font-weight: 600;
}
.word-button {
  flex: none;
}
</style>
