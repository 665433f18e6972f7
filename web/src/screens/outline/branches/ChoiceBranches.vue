<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useLevels } from '../../../foundation/levels'
import ChoiceField from '../../../parts/fields/ChoiceField.vue'
import BranchEnd from './BranchEnd.vue'
import { optionOf } from './branches'
import { useBranches } from './useBranches'

/** What each option of a choice opens, all set in one act. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()
const levels = useLevels()

/** The option that each item hangs on. */
const tied = ref<Map<string, string> | null>(null)
const options = computed(() =>
  (props.item.offers?.options ?? []).flatMap(({ option, title }) => (option === null ? [] : [{ option, title }])),
)
const wanted = computed(() => {
  const now = tied.value
  if (!now) return null
  const changed = new Map<string, unknown>()
  for (const [lineage, option] of now)
    if (stored.value.get(lineage) !== option) changed.set(lineage, { choice: props.item.lineage, picked: option })
  for (const lineage of stored.value.keys()) if (!now.has(lineage)) changed.set(lineage, null)
  return changed
})
const { conditions, items, choices, problem, ready, reach, send } = useBranches(
  toRef(props, 'edition'),
  props.item.lineage,
  wanted,
)
const stored = computed(
  () =>
    new Map(
      (conditions.data.value?.places ?? []).flatMap((place) => {
        const option = optionOf(place, props.item.lineage)
        return option ? [[place.key, option] as const] : []
      }),
    ),
)
watch(
  () => conditions.data.value,
  (known) => {
    if (known && !tied.value) tied.value = new Map(stored.value)
  },
  { immediate: true },
)
const of = (option: string) => items.value.filter((one) => tied.value?.get(one.lineage) === option)
const free = computed(() => choices.value.filter((one) => !tied.value?.has(one.value)))
const form = useTemplateRef<HTMLElement>('form')
/** By keys one goes on from what was added. */
async function tie(lineage: string, option: string): Promise<void> {
  tied.value = new Map(tied.value).set(lineage, option)
  await nextTick()
  form.value?.querySelector<HTMLElement>(`[data-tied="${CSS.escape(lineage)}"]`)?.focus()
}
function untie(lineage: string): void {
  const next = new Map(tied.value)
  next.delete(lineage)
  tied.value = next
}
</script>

<template>
  <form
    ref="form"
    class="editor"
    novalidate
    @submit.prevent="send(() => emit('close'))"
    @keydown.esc.stop.prevent="emit('close')"
  >
    <p v-if="!tied" class="small" role="status">Reading …</p>
    <p v-for="option in options" v-else :key="option.option" class="line">
      <span>“{{ option.title }}” opens</span>
      <span v-for="one in of(option.option)" :key="one.lineage">
        {{ one.code }} {{ one.title }}
        <button
          type="button"
          class="word-button small"
          :data-tied="one.lineage"
          :aria-label="`leave out ${one.title}`"
          @click="untie(one.lineage)"
        >
          leave out
        </button>
      </span>
      <span :key="of(option.option).length">
        <ChoiceField
          :model-value="''"
          :label="`What “${option.title}” opens`"
          :placeholder="`choose ${levels.item.a}`"
          :choices="free"
          @update:model-value="tie($event, option.option)"
        />
      </span>
    </p>
    <p class="small second">
      Students who have not picked an option see nothing of what it opens. Picking another closes it again.
    </p>
    <BranchEnd :problem="problem" :ready="ready" :reach="reach" @close="emit('close')" />
  </form>
</template>
