<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { useScreenKeys } from '../../foundation/useKeys'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { useLevels } from '../../foundation/levels'
import { counted } from '../../foundation/words'
import ProblemNote from '../../parts/ProblemNote.vue'
import SomeStudents from '../../parts/SomeStudents.vue'
import { mondayOf } from '../../parts/calendarDays'
import TitleBlock from '../../parts/TitleBlock.vue'
import DatePanel from './DatePanel.vue'
import DatesFilter from './DatesFilter.vue'
import DatesGrid from './DatesGrid.vue'
import PastePanel from './PastePanel.vue'
import type { Block } from './dateBlock'
import { type Field } from './dateCells'
import { noFilter } from './dateRows'
import { useChecks } from '../../parts/why/useChecks'
import { useDates } from './useDates'

/** When does what open and fall due, where? Items down, sections across. */
const props = defineProps<{ edition: number }>()
const checksOf = useChecks(() => props.edition)
const levels = useLevels()

const { dates, filter, lines, rows } = useDates(props)
const grid = useTemplateRef('grid')
const block = ref<Block | null>(null)
/** What is done with the block: its dates are set, or text from a spreadsheet is laid in. */
const doing = ref<{ paste: string | null; students?: boolean } | null>(null)
const fields = ref<readonly Field[]>(['opens', 'due'])
const answer = computed(() => dates.data.value)
const facts = computed(() => {
  if (!answer.value) return []
  const counting = answer.value.sections.filter((one) => !one.pretend)
  return [
    `${levels.value.item.counted(rows.value.length)}, ${counted(counting.length, 'section')}`,
    answer.value.differences === 1 ? '1 difference' : `${answer.value.differences} differences`,
    `${answer.value.toCheck} to check`,
  ]
})

const route = useRoute()
const viewpoint = useViewpoint()
const ribbon = useAnswer(() => questions.ribbon(props.edition, viewpoint.query.value))

/** The row that the address names, or the first that opens or is due in the week in view, or later: the table opens there. */
const first = computed(() => {
  const named = rows.value.findIndex((one) => one.item === Number(route.query.item))
  if (named >= 0 || !ribbon.data.value) return named
  const monday = mondayOf(ribbon.data.value.moment.local.slice(0, 10))
  return rows.value.findIndex((row) =>
    row.cells.some((cell) => [cell.opens, cell.due].some((moment) => moment && moment.local.slice(0, 10) >= monday)),
  )
})

/** A cell may be named by where one comes from: it is then open. */
const named = watch(
  answer,
  (known) => {
    if (!known) return
    queueMicrotask(() => named.stop())
    const row = rows.value.findIndex((one) => one.item === Number(route.query.item))
    const column = known.sections.findIndex((one) => one.id === Number(route.query.section))
    if (row < 0 || column < 0) return
    const field = (['opens', 'due', 'closes'] as const).find((one) => one === route.query.field) ?? 'opens'
    if (field === 'closes') fields.value = ['due', 'closes']
    block.value = { field, from: { row, column }, to: { row, column } }
    doing.value = { paste: null }
  },
  { immediate: true },
)

/** The one cell that is open. */
const cell = computed(() => {
  const [row, column] = [rows.value[block.value?.from.row ?? -1], block.value?.from.column ?? -1]
  const section = answer.value?.sections[column]
  return row && section ? { section: section.id, item: { id: row.item, title: `${row.code} ${row.title}` } } : null
})

async function close(): Promise<void> {
  doing.value = null
  await nextTick()
  grid.value?.focusActive()
}

useScreenKeys([{ key: 'Escape', words: 'close the dates, unchanged', run: () => void close() }])
</script>

<template>
  <main class="body">
    <ProblemNote v-if="dates.problem.value && !answer" :problem="dates.problem.value" :again="dates.refetch" />
    <p v-else-if="!answer" class="second" role="status">Reading the dates …</p>
    <p v-else-if="answer.sections.length === 0" class="second none">
      No section follows this course yet, so there are no dates. Add one in the outline, or try the course in a pretend
      section, under Sections.
    </p>
    <template v-else>
      <DatesFilter
        v-model="filter"
        v-model:fields="fields"
        :answer="answer"
        :shown="rows.length"
        :csv="`/api/editions/${edition}/dates.csv`"
      />
      <DatesGrid
        v-if="rows.length > 0 && ribbon.data.value"
        ref="grid"
        v-model="block"
        :answer="answer"
        :checks-of="checksOf"
        :lines="lines"
        :rows="rows"
        :fields="fields"
        :first="first"
        :can-change="answer.canChange"
        @open="doing = { paste: null }"
        @paste="(text) => (doing = { paste: text })"
      />
      <p v-else-if="rows.length === 0" class="second none">
        Nothing matches this filter.
        <button type="button" class="word-button" @click="filter = { ...noFilter }">Show all</button>
      </p>
      <template v-if="doing && block && answer.canChange">
        <PastePanel
          v-if="doing.paste !== null"
          :key="doing.paste"
          :edition="edition"
          :answer="answer"
          :rows="rows"
          :block="block"
          :text="doing.paste"
          @close="close"
        />
        <SomeStudents
          v-else-if="doing.students && cell"
          :edition="edition"
          :section="cell.section"
          :item="cell.item"
          @close="close"
        />
        <DatePanel
          v-else
          :key="JSON.stringify(block)"
          :edition="edition"
          :answer="answer"
          :rows="rows"
          :block="block"
          @students="doing = { paste: null, students: true }"
          @close="close"
        />
      </template>
    </template>
  </main>
  <TitleBlock v-if="answer" :edition="edition" :facts="facts" :can-change="answer.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr auto;
  min-height: 0;
}
.none {
  padding: var(--space-7) 0;
}
</style>
