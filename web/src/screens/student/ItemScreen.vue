<script setup lang="ts">
import { computed, watch } from 'vue'
import { type Schemas, api, once } from '../../foundation/api/client'
import { useAnswer } from '../../foundation/useAnswer'
import { joined, ordinal } from '../../foundation/words'
import { useViewpoint } from '../../foundation/useViewpoint'
import StateMark from '../../look/marks/StateMark.vue'
import FileLine from '../../parts/files/FileLine.vue'
import SheetPanel from '../../parts/sheet/SheetPanel.vue'
import FormattedText from '../../parts/FormattedText.vue'
import { remarksIn } from '../../parts/remarks/remarks'
import RemarkedPiece from '../../parts/remarks/RemarkedPiece.vue'
import WrittenPiece from '../../parts/WrittenPiece.vue'
import RubricTable from '../../parts/marks/RubricTable.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import CannotOpen from './CannotOpen.vue'
import OwnWhy from './OwnWhy.vue'
import ChoicePanel from './choice/ChoicePanel.vue'
import QuizPanel from './quiz/QuizPanel.vue'
import TickPanel from './writing/TickPanel.vue'
import WritingPanel from './writing/WritingPanel.vue'
import { useStudentLinks } from './useStudentLinks'
import { progressWords, stateMarks, stateWords } from './words'
import { questions } from '../../foundation/api/questions'

/** Do it: what is to be read, where to write, what came back. */
const props = defineProps<{ section: number; item: number; edition?: number }>()

const viewpoint = useViewpoint()
const links = useStudentLinks(props)
const item = useAnswer(() => questions.studentItem(props.section, props.item, viewpoint.query.value))
const answer = item.data
const readable = computed(() => ['open', 'overdue', 'closed'].includes(answer.value?.state ?? ''))

/** Then what was handed in or came back shows the rubric already, with what was said by it. */
const isShownBelow = computed(() =>
  answer.value?.history.some((version) =>
    [version.judged?.rubric, ...version.feedback.map((back) => back.mark?.rubric?.is)].includes(
      answer.value?.rubric ?? '',
    ),
  ),
)

const isMarked = ({ judged, feedback }: Schemas['HandedIn']) =>
  feedback.some((back) => back.mark?.rubric?.is === judged?.rubric)

/** Files of which there is no copy yet: through a lens none is made. */
const toCome = computed(() =>
  viewpoint.isOnesOwn.value && answer.value?.mayWork
    ? []
    : (answer.value?.copies ?? []).filter((copy) => copy.own === null).map((copy) => copy.original),
)

/** The place a link leads to, in short. */
const host = (address: string) => new URL(address).host

// That it was opened is written down once a visit; through a lens nothing is.
watch(
  readable,
  async (may) => {
    if (!may || !viewpoint.isOnesOwn.value || props.edition !== undefined) return
    const opened = await api
      .POST('/api/sections/{section}/record-opened', {
        params: { path: { section: props.section }, header: once() },
        body: { item: props.item },
      })
      .catch(() => undefined)
    if (opened?.data?.copies) await item.refetch()
  },
  { immediate: true },
)
</script>

<template>
  <main class="body">
    <h1 v-if="edition === undefined && !answer" class="said-only">Your work</h1>
    <ProblemNote v-if="item.problem.value && !answer" :problem="item.problem.value" :again="item.refetch">
      <router-link :to="links.now()">Now and next</router-link>
    </ProblemNote>
    <p v-else-if="!answer" class="second" role="status">Reading …</p>
    <article v-else>
      <p class="small">
        <router-link :to="links.now()">Now and next</router-link> · {{ answer.course }} ·
        {{ answer.levels.unit.one }} “{{ answer.unit }}”
        <template v-if="answer.lesson"> · {{ answer.levels.lesson.one }} “{{ answer.lesson }}”</template>
      </p>
      <header>
        <span class="code">{{ answer.code }}</span>
        <component :is="edition === undefined ? 'h1' : 'h2'" class="head">{{ answer.title }}</component>
      </header>
      <p class="facts second">
        <span
          ><StateMark :state="stateMarks[answer.state] ?? 'open'" />
          {{ stateWords[answer.state] ?? answer.state }}</span
        >
        <span v-if="answer.due" :class="{ accent: answer.state === 'overdue' }"
          >due {{ answer.due.words }}, {{ answer.dueRelative }}</span
        >
        <span v-if="answer.closes">closes {{ answer.closes.words }}</span>
        <span v-if="answer.state === 'upcoming' && answer.opens">opens {{ answer.opens.words }}</span>
        <span v-if="progressWords[answer.progress]">{{ progressWords[answer.progress] }}</span>
      </p>
      <OwnWhy v-if="!readable" :section="section" :item="answer.item" :edition="edition" />
      <FormattedText v-if="answer.html" :html="answer.html" />
      <section v-if="answer.rubric && !isShownBelow" class="history" aria-label="How it is marked">
        <h2>How it is marked</h2>
        <RubricTable :rubric="answer.rubrics[answer.rubric]!" />
      </section>
      <p
        v-if="
          readable &&
          !answer.html &&
          !answer.rubric &&
          answer.kind !== 'quiz' &&
          answer.kind !== 'choice' &&
          !answer.files.length &&
          !answer.copies.length &&
          !answer.hasSheet &&
          !answer.address
        "
        class="second none"
      >
        Nothing is written here yet.
      </p>
      <ChoicePanel v-if="answer.kind === 'choice' && readable" :section="section" :item="answer.item" />
      <QuizPanel v-if="answer.kind === 'quiz' && readable" :section="section" :answer="answer" />
      <p v-if="answer.address" class="leads">
        <v-btn class="meant" :href="answer.address" target="_blank" rel="noopener noreferrer"
          >Open {{ host(answer.address) }}</v-btn
        >
        <span
          v-if="answer.link && answer.link.outcome !== 'open' && answer.link.outcome !== 'not-tried'"
          class="small"
          >{{ answer.link.words }}</span
        >
      </p>
      <section v-if="toCome.length" aria-label="Files to work in" class="files">
        <FileLine v-for="file in toCome" :key="file.id" :file="file" />
        <p class="small second">
          {{
            viewpoint.isOnesOwn.value && edition === undefined
              ? 'You had no copy of your own when this closed.'
              : 'Each student gets a copy to work in the first time they open this.'
          }}
        </p>
      </section>
      <section v-if="answer.files.length" aria-label="Files" class="files">
        <FileLine v-for="file in answer.files" :key="file.id" :file="file" :shown="answer.files.length < 4" />
      </section>
      <SheetPanel
        v-if="answer.hasSheet"
        :key="answer.item"
        :section="section"
        :item="answer.item"
        :student="answer.student"
      />
      <section v-if="answer.onPaper.length" aria-label="What you did on paper" class="history">
        <h2>On paper</h2>
        <p v-for="back in answer.onPaper" :key="back.at.instant">
          <b>{{ back.mark?.words }}</b> <span class="small">{{ back.by }}, {{ back.at.words }}</span>
        </p>
      </section>
      <section v-if="answer.history.length" aria-label="What was handed in" class="history">
        <h2>Handed in</h2>
        <ol class="ruled">
          <li v-for="version in answer.history" :key="version.n">
            <p class="small">
              {{ version.at.words }}<template v-if="version.by">{{ ` by ${version.by}` }}</template
              ><template v-else-if="version.others.length">{{ ` with ${joined(version.others)}` }}</template
              ><template v-if="answer.history.length > 1">{{ `, the ${ordinal(version.n)} time` }}</template>
              <template v-if="version.claimedAt"> (pressed {{ version.claimedAt.words }})</template>
              <template v-if="version.takenBackAt">, taken back {{ version.takenBackAt.words }}</template>
            </p>
            <!-- Given again, what was said last stands in the place of what was said before. -->
            <RemarkedPiece :piece="version" :model-value="remarksIn(version.feedback[0]?.remarks)" />
            <template v-if="version.judged && !isMarked(version)">
              <p class="small">Your own judgement:</p>
              <RubricTable :rubric="answer.rubrics[version.judged.rubric]!" :given="version.judged.levels" is-ones />
            </template>
            <blockquote v-for="back in version.feedback" :key="back.at.instant">
              <p class="small">
                {{ back.by }}, {{ back.at.words }}: {{ back.again ? 'try again' : 'go on'
                }}<template v-if="back.mark">, {{ back.mark.words }}</template>
              </p>
              <RubricTable
                v-if="back.mark?.rubric"
                :rubric="answer.rubrics[back.mark.rubric.is]!"
                :given="back.mark.rubric.levels"
                :own="version.judged?.rubric === back.mark.rubric.is ? version.judged.levels : null"
                own-words="you said"
              />
              <p v-if="back.text" class="written">{{ back.text }}</p>
            </blockquote>
          </li>
        </ol>
      </section>
      <TickPanel
        v-if="answer.asks?.way === 'tick' && edition === undefined && (answer.mayTick || answer.isTicked)"
        :section="section"
        :answer="answer"
      />
      <WritingPanel
        v-else-if="
          answer.asks && answer.asks.way !== 'tick' && edition === undefined && (answer.mayWork || answer.draft)
        "
        :key="answer.item"
        :section="section"
        :answer="answer"
      />
      <section v-else-if="answer.draft" aria-label="Being written" class="history">
        <h2>Being written</h2>
        <WrittenPiece :piece="answer.draft" />
      </section>
      <CannotOpen
        v-if="edition === undefined && viewpoint.isOnesOwn.value && answer.student !== null"
        :section="section"
        :answer="answer"
      />
    </article>
  </main>
</template>

<style scoped>
.body {
  position: relative;
  min-height: 0;
  overflow: auto;
  border-top: var(--stroke-hair) solid var(--ink);
}
article {
  display: grid;
  gap: var(--space-4);
  max-width: 860px;
  padding: var(--space-6) 0 var(--space-9);
}
header {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
}
.head {
  font: 600 var(--size-title) / 1.2 var(--face-display);
}
.code {
  color: var(--ink-2);
  font-size: var(--size-unit);
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-7);
  padding-bottom: var(--space-5);
}
.files {
  display: grid;
  gap: var(--space-5);
}
.leads {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-3) var(--space-5);
}
.none {
  padding: var(--space-5) 0;
}
.history h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
}
.history li {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-5) 0;
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-width: 68ch;
}
blockquote {
  margin: 0;
  padding: var(--space-2) 0 var(--space-2) var(--space-6);
  border-left: var(--stroke-strong) solid var(--accent);
}
</style>
