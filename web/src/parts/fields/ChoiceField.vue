<script lang="ts">
/** One thing that can be chosen. */
export interface Choice<T> {
  value: T
  title: string
  /** What else helps to tell it, searched as well: a code, a unit. */
  note?: string
}
</script>

<script setup lang="ts" generic="T">
import { computed } from 'vue'

/** One of several, as part of a sentence or under its name. Where there are many, typing finds one by any of its words. */
const props = defineProps<{
  /** What is chosen, for whoever cannot see the sentence it stands in. */
  label: string
  choices: readonly Choice<T>[]
  /** What stands there while nothing is chosen. */
  placeholder?: string
  disabled?: boolean
}>()
const chosen = defineModel<T>({ required: true })

const MANY = 15
const LONGEST = 44
const items = computed(() =>
  props.choices.map(({ title, note }, value) => ({ value, title, props: { subtitle: note } })),
)
// By place: what is chosen may be nothing, which a list would take for no choice at all.
const at = computed({
  get: () => {
    const place = props.choices.findIndex((one) => one.value === chosen.value)
    return place < 0 ? null : place
  },
  set: (place) => {
    if (place !== null && props.choices[place]) chosen.value = props.choices[place].value
  },
})
// As wide as what is chosen, so that a sentence reads on; where one types, as wide as the longest.
const width = computed(() => {
  const titles = props.choices.map((one) => one.title.length)
  const here = at.value === null ? (props.placeholder?.length ?? 0) : titles[at.value]!
  const letters = props.choices.length > MANY ? Math.max(here, ...titles) : here
  return `${(Math.min(LONGEST, Math.max(3, letters)) * 0.53 + 2.1).toFixed(2)}em`
})

/** Every written word is in the title or the note. */
function found(_: string, query: string, item?: { raw: (typeof items.value)[number] }): boolean {
  const text = `${item?.raw.title} ${item?.raw.props.subtitle ?? ''}`.toLowerCase()
  return query
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word))
}
</script>

<template>
  <v-autocomplete
    v-if="choices.length > MANY"
    v-model="at"
    class="choice"
    :items="items"
    :label="label"
    :aria-label="label"
    :placeholder="placeholder"
    persistent-placeholder
    :disabled="disabled"
    :custom-filter="found"
    auto-select-first
    item-props="props"
    no-data-text="Nothing is called that."
    :style="{ width }"
  />
  <v-select
    v-else
    v-model="at"
    class="choice"
    :items="items"
    :label="label"
    :aria-label="label"
    :placeholder="placeholder"
    persistent-placeholder
    :disabled="disabled"
    item-props="props"
    no-data-text="Nothing to choose from yet."
    :style="{ width }"
  />
</template>
