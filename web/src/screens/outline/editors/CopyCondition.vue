<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { questions } from '../../../foundation/api/questions'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import { useReach } from '../../../foundation/commands/useReach'
import { useLevels } from '../../../foundation/levels'
import { useAnswer } from '../../../foundation/useAnswer'
import ProblemNote from '../../../parts/ProblemNote.vue'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import { rowsOf, titleOf } from '../outlineRows'

/** The same condition set on other items, lessons or units as well, all at once. */
const props = defineProps<{ edition: number; from: string; gate: unknown }>()
const emit = defineEmits<{ done: [] }>()
const levels = useLevels()

const outline = useAnswer(() => questions.outline(props.edition))
const chosen = ref<string[]>([])
const places = computed(() =>
  (outline.data.value ? rowsOf(outline.data.value) : []).flatMap((row) => {
    const at = row.level === 'unit' ? row.unit : row.level === 'lesson' ? row.lesson : row.item
    if (at.lineage === props.from || at.only !== null) return []
    const code = row.level === 'item' ? `${row.item.code} ` : ''
    return [{ key: row.key, of: row.level, id: at.id, version: at.version, title: `${code}${titleOf(row)}` }]
  }),
)
const taking = useTemplateRef<HTMLElement>('taking')
/** By keys one goes on from what was added. */
async function add(key: string): Promise<void> {
  chosen.value.push(key)
  await nextTick()
  const buttons = taking.value?.querySelectorAll<HTMLElement>('[data-taken] button')
  buttons?.[buttons.length - 1]?.focus()
}
const choices = computed(() =>
  places.value
    .filter((one) => !chosen.value.includes(one.key))
    .map((one) => ({
      value: one.key,
      title: one.title,
      note: one.of === 'item' ? undefined : `the whole ${levels.value[one.of].one}`,
    })),
)
const taken = computed(() => chosen.value.flatMap((key) => places.value.find((one) => one.key === key) ?? []))
const set = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/set-conditions')
const request = computed(() =>
  taken.value.length === 0
    ? null
    : {
        conditions: taken.value.map((one) => ({
          [one.of]: one.id,
          gate: props.gate as Schemas['PlaceCondition']['gate'],
          version: one.version,
        })),
      },
)
const reach = useReach(request, set.preview)

async function send(): Promise<void> {
  if (!request.value) return
  await set.run(request.value).then(
    () => emit('done'),
    () => undefined,
  )
}
</script>

<template>
  <p ref="taking" class="line">
    <span>Set it on others as well:</span>
    <span v-for="one in taken" :key="one.key" data-taken>
      {{ one.title }}
      <button
        type="button"
        class="word-button small"
        :aria-label="`leave out ${one.title}`"
        @click="chosen = chosen.filter((key) => key !== one.key)"
      >
        leave out
      </button>
    </span>
    <span :key="chosen.length">
      <ChoiceField
        :model-value="''"
        label="Set it on others as well"
        :placeholder="`choose ${levels.item.a}, or a whole ${levels.unit.one}`"
        :choices="choices"
        @update:model-value="add"
      />
    </span>
    <v-btn v-if="taken.length" :disabled="set.busy.value" @click="send">Set it there too</v-btn>
    <span class="small" role="status">{{ reach }}</span>
  </p>
  <ProblemNote v-if="set.problem.value" :problem="set.problem.value" />
</template>
