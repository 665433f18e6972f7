<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { useRouter } from 'vue-router'
import { type Schemas, api, ask, once } from '../../foundation/api/client'
import { keys } from '../../foundation/keys'
import { useSend } from '../../foundation/commands/useSend'
import { counted } from '../../foundation/words'
import { useScreenKeys } from '../../foundation/useKeys'
import PageHead from '../../parts/shell/PageHead.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import CalendarLegend from './CalendarLegend.vue'
import DaysPanel from './DaysPanel.vue'
import EndPanel from './EndPanel.vue'
import FilePanel from './FilePanel.vue'
import MarksInTerm from './MarksInTerm.vue'
import NewSections from './NewSections.vue'
import SectionPanel from './SectionPanel.vue'
import SectionsInTerm from './SectionsInTerm.vue'
import TermPanel from './TermPanel.vue'
import YearSheet from './YearSheet.vue'
import { useCalendar } from './useCalendar'
import { type MarkDraft, type Stretch, draftOf, firstOf, lastOf, ordinaryPeriods, proposed } from './yearSheet'

/** When is there school? The office's: the term on a year sheet, and what that means for every section. */
const props = defineProps<{ term: number }>()

const { calendar, problem, again, away } = useCalendar(toRef(props, 'term'))
const taken = ref<Stretch | null>(null)
/** What is being changed, in the panel below. */
const open = ref<
  | 'term'
  | 'file'
  | 'sections'
  | { section: Schemas['TermSectionCard'] }
  | { ending: Schemas['TermSectionCard'] }
  | { draft: MarkDraft; key: string }
  | null
>(null)
const facts = computed(() =>
  calendar.value ? [`${calendar.value.classDays} class days`, counted(calendar.value.sections.length, 'section')] : [],
)
const periods = computed(() => (calendar.value ? ordinaryPeriods(calendar.value) : []))

function openTaken(): void {
  if (!taken.value || !calendar.value) return
  const [first, last] = [firstOf(taken.value), lastOf(taken.value)]
  const there = calendar.value.marks.filter((one) => one.first <= last && first <= one.last)
  const own = there.length === 1 && (first === last || (there[0]!.first === first && there[0]!.last === last))
  open.value = own
    ? { draft: draftOf(there[0]!), key: `mark ${there[0]!.id}` }
    : { draft: proposed(calendar.value, taken.value), key: `${first} ${last}` }
}

function edit(one: Schemas['CalendarMark']): void {
  taken.value = { anchor: one.first, head: one.last }
  open.value = { draft: draftOf(one), key: `mark ${one.id}` }
}

function leave(): void {
  open.value = null
  taken.value = null
}

const router = useRouter()
const removal = useSend(
  (body: Schemas['RemoveTermRequest'], key) =>
    ask(api.POST('/api/school/remove-term', { params: { header: once(key) }, body })),
  [keys.places],
)
/** It was asked to be removed, and is asked once more. */
const isGoing = ref(false)
async function remove(): Promise<void> {
  if (await removal.run({ term: props.term })) await router.push({ name: 'places' })
}

useScreenKeys([
  { key: 'Escape', words: 'leave the days unchanged', run: leave },
  { key: 'Enter', words: 'mark the selected days: arrows move, with Shift they select more' },
])
</script>

<template>
  <div class="page">
    <PageHead>
      <span v-if="calendar">
        <b>{{ calendar.name }}</b> <span class="second">{{ calendar.dates }}, {{ calendar.zone }}</span>
      </span>
    </PageHead>
    <nav class="title" aria-label="The term">
      <h1>Calendar</h1>
      <template v-if="calendar">
        <span class="second"
          >{{ calendar.classDays }} class days, {{ calendar.rotationWords
          }}{{
            periods.length > 0
              ? `; ${periods[0]!.name} to ${periods.at(-1)!.name}, ${periods[0]!.start} to ${periods.at(-1)!.end}`
              : '; no periods'
          }}</span
        >
        <template v-if="calendar.canChange">
          <button type="button" class="word-button" @click="open = 'term'">change the term</button>
          <button type="button" class="word-button" @click="open = 'file'">import closures from a file</button>
          <button
            v-if="calendar.sections.length === 0"
            type="button"
            class="word-button"
            @click="isGoing ? void remove() : (isGoing = true)"
          >
            {{ isGoing ? `remove ${calendar.name} and its marks for good` : 'remove this term' }}
          </button>
          <span v-if="removal.problem.value" class="accent" role="alert">{{ removal.problem.value.title }}</span>
        </template>
        <span v-else class="second">This term is over: its calendar stays as it was.</span>
      </template>
      <span v-if="away" class="accent" role="status">No connection to Polycline. What you see may be out of date.</span>
    </nav>
    <main class="body">
      <ProblemNote v-if="problem && !calendar" :problem="problem" :again="again" />
      <p v-else-if="!calendar" class="second" role="status">Reading the calendar …</p>
      <template v-else>
        <YearSheet :calendar="calendar" :taken="taken" @take="(what) => (taken = what)" @open="openTaken" />
        <CalendarLegend :can-change="calendar.canChange" />
        <div class="two">
          <MarksInTerm :calendar="calendar" @edit="edit" @done="leave" />
          <SectionsInTerm
            :term="term"
            :sections="calendar.sections"
            :can-add="calendar.canChange"
            @add="open = 'sections'"
            @choose="(section) => (open = { section })"
          />
        </div>
      </template>
    </main>
    <div v-if="calendar">
      <template v-if="calendar.canChange && open">
        <TermPanel v-if="open === 'term'" :calendar="calendar" @close="leave" />
        <FilePanel v-else-if="open === 'file'" :calendar="calendar" @close="leave" />
        <NewSections v-else-if="open === 'sections'" :calendar="calendar" @close="leave" />
        <SectionPanel
          v-else-if="'section' in open"
          :key="open.section.id"
          :calendar="calendar"
          :section="open.section"
          @end="open = { ending: open.section }"
          @close="leave"
        />
        <EndPanel v-else-if="'ending' in open" :calendar="calendar" :section="open.ending" @close="leave" />
        <DaysPanel v-else :key="open.key" :calendar="calendar" :draft="open.draft" @close="leave" />
      </template>
    </div>
    <TitleBlock v-if="calendar" :term="term" :facts="facts" :can-change="calendar.canChange" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template-rows: auto auto 1fr auto auto;
  height: 100dvh;
  padding: 0 var(--space-8);
  overflow: clip;
}
.title {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--space-7);
  border-top: var(--stroke-hair) solid var(--ink);
  padding: var(--space-5) 0 var(--space-6);
}
h1 {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.body {
  min-height: 0;
  overflow: auto;
  padding-bottom: var(--space-8);
}
.two {
  display: grid;
  grid-template-columns: 4fr 5fr;
  gap: var(--space-9);
}
</style>
