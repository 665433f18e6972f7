<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { useTermCommand } from '../../foundation/useEditionCommand'
import { useScreenKeys } from '../../foundation/useKeys'
import SectionKey from '../../look/marks/SectionKey.vue'
import PageHead from '../../parts/shell/PageHead.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import DaysPanel from './DaysPanel.vue'
import FilePanel from './FilePanel.vue'
import TermPanel from './TermPanel.vue'
import YearSheet from './YearSheet.vue'
import { useCalendar } from './useCalendar'
import { type MarkDraft, type Stretch, draftOf, firstOf, goneOf, lastOf, proposed } from './yearSheet'

/** When is there school? The office's: the term on a year sheet, and what that means for every section. */
const props = defineProps<{ term: number }>()

const { calendar, problem, away } = useCalendar(toRef(props, 'term'))
const mark = useTermCommand(toRef(props, 'term'), '/api/terms/{term}/mark-days')
const taken = ref<Stretch | null>(null)
/** What is being changed, in the panel below. */
const open = ref<'term' | 'file' | { draft: MarkDraft; key: string } | null>(null)
const kindWords: Record<string, string> = { closure: 'closed', extra: 'extra day', special: 'special day' }
const facts = computed(() =>
  calendar.value ? [`${calendar.value.classDays} class days`, `${calendar.value.sections.length} sections`] : [],
)
const periods = computed(
  () => (calendar.value?.periods ?? []) as unknown as { name: string; start: string; end: string }[],
)

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

const takeOut = (one: Schemas['CalendarMark']) => mark.run({ marks: [goneOf(one)] }).then(leave, () => undefined)

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
        </template>
        <span v-else class="second">This term is over: its calendar stays as it was.</span>
      </template>
      <span v-if="away" class="accent" role="status">No connection to Polycline. What you see may be out of date.</span>
    </nav>
    <main class="body">
      <ProblemNote v-if="problem && !calendar" :problem="problem" />
      <p v-else-if="!calendar" class="second" role="status">Reading the calendar …</p>
      <template v-else>
        <YearSheet :calendar="calendar" :taken="taken" @take="(what) => (taken = what)" @open="openTaken" />
        <p class="small legend">
          <span class="box closed" aria-hidden="true"></span> closed
          <span class="box free" aria-hidden="true"></span> no classes on that weekday
          <span class="box extra" aria-hidden="true"></span> extra day
          <span class="box special" aria-hidden="true"></span> special day
          <template v-if="calendar.canChange">
            · drag over days to mark them, or move with the arrows, select more with Shift, and press Enter</template
          >
        </p>
        <div class="two">
          <section aria-labelledby="marks-title">
            <h2 id="marks-title" class="ruled-head">Marked in this term</h2>
            <p v-if="calendar.marks.length === 0" class="second none">
              Nothing yet: every {{ calendar.weekdays.length === 5 ? 'weekday' : 'teaching day' }} of the term has
              classes. Drag over days to close the school, or import its closures from a file.
            </p>
            <ProblemNote v-if="mark.problem.value" :problem="mark.problem.value" />
            <ul class="ruled">
              <li v-for="one in calendar.marks" :key="one.id" class="mark" :class="{ sleeps: one.sleeps }">
                <span>{{ one.words }}</span>
                <span
                  ><b>{{ one.name || 'Special day' }}</b
                  >{{ ' '
                  }}<span class="small"
                    >{{ kindWords[one.kind] }}{{ one.facts ? `, ${one.facts}` : ''
                    }}{{ one.sleeps ? '; sleeps: no class day' : '' }}</span
                  ></span
                >
                <span v-if="calendar.canChange" class="ways">
                  <button type="button" class="word-button" @click="edit(one)">
                    change<span class="said-only">: {{ one.words }}</span>
                  </button>
                  <button type="button" class="word-button" :disabled="mark.busy.value" @click="takeOut(one)">
                    take out<span class="said-only">: {{ one.words }}</span>
                  </button>
                </span>
              </li>
            </ul>
          </section>
          <section aria-labelledby="sections-title">
            <h2 id="sections-title" class="ruled-head">Sections in this term</h2>
            <p v-if="calendar.sections.length === 0" class="second none">
              No section meets in this term yet. You can set it up all the same.
            </p>
            <ul class="ruled">
              <li v-for="one in calendar.sections" :key="one.id" class="section">
                <SectionKey :letter="one.letter" :name="one.name" />
                <span class="second">{{ one.course ?? '' }}</span>
                <span class="count">{{ one.classes === 1 ? '1 class' : `${one.classes} classes` }}</span>
                <span :class="{ short: one.lacks }">{{ one.standing }}</span>
              </li>
            </ul>
          </section>
        </div>
      </template>
    </main>
    <div v-if="calendar">
      <template v-if="calendar.canChange && open">
        <TermPanel v-if="open === 'term'" :calendar="calendar" @close="leave" />
        <FilePanel v-else-if="open === 'file'" :calendar="calendar" @close="leave" />
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
h2 {
  font: 600 var(--size-unit) / 1.3 var(--face-display);
}
.body {
  min-height: 0;
  overflow: auto;
  padding-bottom: var(--space-8);
}
.legend {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-3);
  padding: var(--space-4) 0 var(--space-8);
}
.box {
  width: var(--space-7);
  height: var(--space-6);
  margin-left: var(--space-5);
  border: var(--stroke-hair) solid var(--hair);
}
.box.closed {
  margin-left: 0;
  background: repeating-linear-gradient(45deg, transparent 0 4px, var(--line) 4px 5px);
}
.box.free {
  background: var(--faint-hair);
}
.box.extra {
  border: var(--stroke-strong) solid var(--ink);
}
.box.special {
  border-bottom: var(--space-2) solid var(--ink);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-9);
}
.none {
  padding: var(--space-5) 0;
}
.mark {
  display: grid;
  grid-template-columns: 150px 1fr auto;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.mark b {
  font-weight: 600;
}
.sleeps {
  color: var(--ink-2);
}
.ways {
  display: flex;
  gap: var(--space-5);
}
.section {
  display: grid;
  grid-template-columns: 150px 1fr 84px 190px;
  gap: var(--space-5);
  padding: var(--space-3) 0;
}
.short {
  font-weight: 650;
}
</style>
