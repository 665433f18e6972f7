<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useLevels } from '../../../foundation/levels'
import { useReach } from '../../../foundation/commands/useReach'
import ProblemNote from '../../../parts/ProblemNote.vue'
import type { Anchor } from '../../../parts/timing/timing'
import { unpublishedOf } from '../outlineRows'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import TickField from '../../../parts/fields/TickField.vue'

/** The unpublished items of a unit, published together, each with its moment. */
const props = defineProps<{ edition: number; unit: Schemas['OutlineUnit'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

const items = unpublishedOf(props.unit)
const chosen = ref(items.map((item) => item.id))
type When = 'as-set' | 'lesson' | 'at-once'
const onLesson = new Set(props.unit.lessons.flatMap((lesson) => lesson.items.map((item) => item.id)))
const when = ref<Record<number, When>>(Object.fromEntries(items.map((item) => [item.id, 'as-set' as When])))
const publish = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/publish-items')

const opensOf = (item: (typeof items)[number]): Anchor | null => {
  const way = when.value[item.id]
  if (way === 'lesson') return { at: onLesson.has(item.id) ? 'lesson-start' : 'unit-start' }
  return way === 'at-once' ? null : (item.opensAt as Anchor | null)
}
const request = computed(() => {
  const some = items.filter((item) => chosen.value.includes(item.id))
  return some.length === 0
    ? null
    : {
        unit: props.unit.id,
        version: props.unit.version,
        items: some.map((item) => ({ item: item.id, opens: opensOf(item), version: item.version })),
      }
})
const reach = useReach(request, publish.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await publish.run(request.value).then(
    () => emit('close'),
    () => undefined,
  )
}
</script>

<template>
  <form class="together" @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
    <table>
      <thead>
        <tr class="small">
          <th scope="col">Publish</th>
          <th scope="col">When it opens</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in items" :key="item.id">
          <td>
            <TickField v-model="chosen" :value="item.id" :label="`${item.code} ${item.title}`" />
          </td>
          <td>
            <ChoiceField
              v-model="when[item.id]"
              :label="`When ${item.title} opens`"
              :choices="[
                { value: 'as-set', title: `as it is set: ${item.opens ?? 'as soon as it is published'}` },
                {
                  value: 'lesson',
                  title: `at the start of the ${onLesson.has(item.id) ? levels.lesson.one : levels.unit.one}`,
                },
                { value: 'at-once', title: 'as soon as it is published' },
              ]"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <ProblemNote v-if="publish.problem.value" :problem="publish.problem.value" />
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!request || publish.busy.value"
        >Publish {{ levels.item.counted(chosen.length) }}</v-btn
      >
      <v-btn @click="emit('close')">Leave it as it is</v-btn>
      <span class="small" role="status">{{ reach }}</span>
    </p>
  </form>
</template>

<style scoped>
.together {
  display: grid;
  gap: var(--space-4);
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-4);
}
table {
  border-collapse: collapse;
  justify-self: start;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: var(--space-2) var(--space-7) var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
</style>
