<script setup lang="ts">
import { computed } from 'vue'
import { capital, useLevels } from '../../foundation/levels'
import type { Answer, Field } from './dateCells'
import { type Filter, kindsOf, noFilter, weeksOf } from './dateRows'

/** What of the table is shown. */
const props = defineProps<{ answer: Answer; shown: number; csv: string }>()
const levels = useLevels()
const filter = defineModel<Filter>({ required: true })
/** Which dates of an item stand in its cells. */
const fields = defineModel<readonly Field[]>('fields', { required: true })

const closing: readonly Field[] = ['due', 'closes']
const opening: readonly Field[] = ['opens', 'due']

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
const put = (part: keyof Filter, event: Event) =>
  (filter.value = { ...filter.value, [part]: (event.target as HTMLInputElement).value })
</script>

<template>
  <p class="filter" role="search">
    <input
      :value="filter.words"
      type="text"
      aria-label="Part of a code or title"
      placeholder="code or title"
      autocomplete="off"
      @input="put('words', $event)"
    />
    <select :value="filter.unit" :aria-label="capital(levels.unit.one)" @change="put('unit', $event)">
      <option value="">every {{ levels.unit.one }}</option>
      <option
        v-for="unit in answer.units.filter((one) => one.number !== null)"
        :key="unit.number!"
        :value="`${unit.number}`"
      >
        {{ unit.number }} {{ unit.title }}
      </option>
    </select>
    <select :value="filter.week" aria-label="Week" @change="put('week', $event)">
      <option value="">every week</option>
      <option v-if="span" :value="filter.week">{{ span }}</option>
      <option v-for="week in weeks" :key="week.monday" :value="week.monday">week of {{ week.words }}</option>
    </select>
    <select :value="filter.section" aria-label="Section" @change="put('section', $event)">
      <option value="">in any section</option>
      <option v-for="section in answer.sections" :key="section.id" :value="`${section.id}`">
        in {{ section.name }}
      </option>
    </select>
    <select :value="filter.kind" aria-label="Kind" @change="put('kind', $event)">
      <option value="">every kind</option>
      <option v-for="kind in kindsOf(answer)" :key="kind" :value="kind">{{ kind }}</option>
    </select>
    <select :value="filter.only" aria-label="Only some" @change="put('only', $event)">
      <option value="">all of them</option>
      <option value="differs">only what differs</option>
      <option value="to-check">only what is to check</option>
      <option value="unpublished">only what is unpublished</option>
    </select>
    <select
      :value="fields.includes('closes') ? 'closing' : 'opening'"
      aria-label="Which dates"
      @change="fields = ($event.target as HTMLSelectElement).value === 'closing' ? closing : opening"
    >
      <option value="opening">opens and due</option>
      <option value="closing">due and closes</option>
    </select>
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
input {
  width: 140px;
}
select {
  max-width: 140px;
}
.csv {
  margin-left: auto;
}
</style>
