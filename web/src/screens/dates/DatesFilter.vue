<script setup lang="ts">
import { computed } from 'vue'
import { capital, useLevels } from '../../foundation/levels'
import type { Answer, Field } from './dateCells'
import { type Filter, kindsOf, noFilter, weeksOf } from './dateRows'
import ChoiceField, { type Choice } from '../../parts/fields/ChoiceField.vue'
import WordField from '../../parts/fields/WordField.vue'

/** What of the table is shown. */
const props = defineProps<{ answer: Answer; shown: number; csv: string }>()
const levels = useLevels()
const filter = defineModel<Filter>({ required: true })
/** Which dates of an item stand in its cells. */
const fields = defineModel<readonly Field[]>('fields', { required: true })

const closing: readonly Field[] = ['due', 'closes']
const opening: readonly Field[] = ['opens', 'due']
const closes = computed(() => fields.value.includes('closes'))

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const day = (local: string) => `${Number(local.slice(8, 10))} ${months[Number(local.slice(5, 7)) - 1]}`
/** From where one comes, the week may be one of seven days from any moment. */
const span = computed(() => {
  const [from, to] = filter.value.week.split('/')
  return from && to ? `${day(from)} to ${day(to)}` : null
})
const weeks = computed(() =>
  weeksOf(props.answer).map((monday) => ({
    monday,
    words: day(monday),
  })),
)
const isFiltered = computed(() => Object.values(filter.value).some((part) => part !== ''))
const put = (part: keyof Filter, value: string) => (filter.value = { ...filter.value, [part]: value })
const parts = computed<{ part: keyof Filter; label: string; choices: Choice<string>[] }[]>(() => [
  {
    part: 'unit',
    label: capital(levels.value.unit.one),
    choices: [
      { value: '', title: `every ${levels.value.unit.one}` },
      ...props.answer.units
        .filter((unit) => unit.number !== null)
        .map((unit) => ({ value: `${unit.number}`, title: `${unit.number} ${unit.title}` })),
    ],
  },
  {
    part: 'week',
    label: 'Week',
    choices: [
      { value: '', title: 'every week' },
      ...(span.value ? [{ value: filter.value.week, title: span.value }] : []),
      ...weeks.value.map((week) => ({ value: week.monday, title: `week of ${week.words}` })),
    ],
  },
  {
    part: 'section',
    label: 'Section',
    choices: [
      { value: '', title: 'in any section' },
      ...props.answer.sections.map((section) => ({ value: `${section.id}`, title: `in ${section.name}` })),
    ],
  },
  {
    part: 'kind',
    label: 'Kind',
    choices: [
      { value: '', title: 'every kind' },
      ...kindsOf(props.answer).map((kind) => ({ value: kind, title: kind })),
    ],
  },
  {
    part: 'only',
    label: 'Only some',
    choices: [
      { value: '', title: 'everything' },
      { value: 'differs', title: 'only what differs' },
      { value: 'to-check', title: 'only what to check' },
      { value: 'unpublished', title: 'only unpublished' },
    ],
  },
])
</script>

<template>
  <p class="filter" role="search">
    <WordField
      class="words"
      :model-value="filter.words"
      label="Part of a code or title"
      placeholder="code or title"
      @update:model-value="put('words', $event)"
    />
    <ChoiceField
      v-for="part in parts"
      :key="part.part"
      :model-value="filter[part.part]"
      :label="part.label"
      :choices="part.choices"
      @update:model-value="put(part.part, $event)"
    />
    <span role="group" aria-label="Which dates" class="small show">
      <button type="button" :aria-pressed="!closes" @click="fields = opening">opens and due</button>
      ·
      <button type="button" :aria-pressed="closes" @click="fields = closing">due and closes</button>
    </span>
    <span class="small" role="status">{{ shown }} shown</span>
    <button v-if="isFiltered" type="button" class="word-button small" @click="filter = { ...noFilter }">
      show all
    </button>
    <a class="small csv" :href="csv" download>for a spreadsheet</a>
  </p>
</template>

<style scoped>
.filter {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
  padding-bottom: var(--space-4);
}
.words {
  flex: none;
  width: 140px;
}
.show button {
  min-height: 24px;
}
.show button[aria-pressed='true'] {
  color: var(--ink);
  font-weight: 650;
}
.show button[aria-pressed='false'] {
  text-decoration: underline;
  text-decoration-color: var(--hair);
  text-underline-offset: 3px;
}
.csv {
  margin-left: auto;
}
</style>
