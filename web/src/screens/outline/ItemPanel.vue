<script setup lang="ts">
import { computed, ref, toRef, useTemplateRef } from 'vue'
import { useAnswer } from '../../foundation/useAnswer'
import { useEditionCommand } from '../../foundation/commands/useEditionCommand'
import { useLevels } from '../../foundation/levels'
import { asksSentence } from '../../parts/asks'
import { markedSentence } from '../../parts/marks/marked'
import ProblemNote from '../../parts/ProblemNote.vue'
import RowChecks from '../../parts/why/RowChecks.vue'
import WhoCan from '../../parts/why/WhoCan.vue'
import ChoiceBranches from './branches/ChoiceBranches.vue'
import ScoreBranches from './branches/ScoreBranches.vue'
import AddressEditor from './editors/AddressEditor.vue'
import AsksEditor from './editors/AsksEditor.vue'
import ConditionEditor from './editors/ConditionEditor.vue'
import MarkedEditor from './editors/MarkedEditor.vue'
import ItemInSections from './ItemInSections.vue'
import NotesHere from './notes/NotesHere.vue'
import TickField from '../../parts/fields/TickField.vue'
import ItemFiles from './files/ItemFiles.vue'
import ItemOutcomes from './outcomes/ItemOutcomes.vue'
import ForWhomEditor from './editors/ForWhomEditor.vue'
import PurposeLine from './PurposeLine.vue'
import RenamePanel from './RenamePanel.vue'
import OfferPart from './choice/OfferPart.vue'
import QuizEditor from './quiz/QuizEditor.vue'
import RubricPart from './rubric/RubricPart.vue'
import ItemText from './text/ItemText.vue'
import TimingEditor from './editors/TimingEditor.vue'
import type { ItemRow } from './outlineRows'
import { useInView } from './useInView'
import { questions } from '../../foundation/api/questions'

/** An item opened in place: its title; who gets it, when and on what condition as one sentence; its text. */
const props = defineProps<{
  item: ItemRow
  edition: number
  sections: number
  canChange: boolean
  /** Its title is being written anew. */
  renaming: boolean
}>()
const emit = defineEmits<{ close: []; rename: []; renamed: []; remove: []; move: [by: -1 | 1] }>()
const levels = useLevels()

const edition = toRef(props, 'edition')
const answer = useAnswer(() => questions.item(props.edition, props.item.id))
const whole = computed(() => answer.data.value)
const isWho = ref(false)
const part = ref<'opens' | 'due' | 'closes' | 'condition' | 'whom' | 'asks' | 'marked' | 'opens-what' | null>(null)
const publish = useEditionCommand(edition, '/api/editions/{edition}/publish-item')
const about = useEditionCommand(edition, '/api/editions/{edition}/say-about-teacher')
const panel = useTemplateRef<HTMLElement>('panel')
useInView(panel, whole)
const takesAsking = computed(() => ['page', 'link', 'handout', 'task'].includes(props.item.kind))
/** Only what is handed in can be marked. */
const takesMark = computed(() => ['work', 'log'].includes(whole.value?.asks?.way ?? ''))
/** What it opens by score or by option. */
const branches = computed(() => props.item.kind === 'choice' || props.item.kind === 'quiz' || !!whole.value?.marked)
const takesText = computed(() => props.item.kind !== 'choice' && props.item.kind !== 'quiz')

const whomWords = computed(() => {
  const said = whole.value?.forWhom
  return !said ? 'For everyone.' : said.startsWith('for') ? `Only ${said}.` : `N${said.slice(1)}.`
})

/** What students see of it, not what a field says. */
const standing = computed(() =>
  !props.item.published
    ? 'Unpublished: only the team sees it.'
    : props.item.behind
      ? `Published, but students see nothing of it: its ${props.item.behind === 'unit' ? levels.value.unit.one : levels.value.lesson.one} is unpublished.`
      : 'Published.',
)

function setPublished(): void {
  if (!whole.value) return
  void publish
    .run({
      item: whole.value.id,
      published: !props.item.published,
      version: Math.max(whole.value.version, props.item.version),
    })
    .catch(() => undefined)
}

function setAbout(aboutTeacher: boolean): void {
  if (!whole.value) return
  const { id, version } = whole.value
  void about.run({ item: id, aboutTeacher, version: Math.max(version, props.item.version) }).catch(() => undefined)
}
</script>

<template>
  <div ref="panel" class="panel">
    <p v-if="!canChange" class="second">It can be read here, not changed.</p>
    <RenamePanel
      v-if="renaming && canChange"
      :item="item"
      :edition="edition"
      :sections="sections"
      @close="emit('renamed')"
    />
    <p v-if="!whole" class="small" role="status">{{ answer.problem.value?.title ?? 'Reading …' }}</p>
    <template v-else>
      <p class="sentence">
        <template v-for="field in ['opens', 'due', 'closes'] as const" :key="field">
          {{ { opens: 'Opens', due: ', due', closes: ', closes' }[field] }}
          <button type="button" class="word-button" :disabled="!canChange" @click="part = field">
            {{ whole[field].words ?? { opens: 'as soon as it is published', due: 'never', closes: 'never' }[field] }}
          </button></template
        >.
        <button type="button" class="word-button" :disabled="!canChange" @click="part = 'condition'">
          {{ whole.conditionInWords ?? 'No condition.' }}</button>{{ ' ' }}
        <button type="button" class="word-button" :disabled="!canChange" @click="part = 'whom'">
          {{ whomWords }}</button>{{ ' ' }}
      </p>
      <p class="line">
        <span>{{ standing }}</span>
        <button v-if="canChange" type="button" class="word-button" :disabled="publish.busy.value" @click="setPublished">
          {{ item.published ? 'unpublish' : 'publish' }}
        </button>
        <button type="button" class="word-button" :aria-expanded="isWho" @click="isWho = !isWho">
          who can open it?
        </button>
      </p>
      <WhoCan v-if="isWho" :edition="edition" :item="whole.id" :title="whole.title" />
      <AddressEditor v-if="item.kind === 'link'" :edition="edition" :item="whole" :can-change="canChange" />
      <p v-if="takesAsking" class="line">
        <span>{{ asksSentence(whole.asks) }}</span>
        <button v-if="canChange" type="button" class="word-button" @click="part = 'asks'">
          change what is handed in
        </button>
      </p>
      <p v-if="takesMark || whole.marked" class="line">
        <span>{{ markedSentence(whole.marked) }}</span>
        <button v-if="canChange" type="button" class="word-button" @click="part = 'marked'">
          change how it is marked
        </button>
      </p>
      <RubricPart v-if="takesMark || whole.hasRubric" :edition="edition" :item="whole" :can-change="canChange" />
      <PurposeLine
        :edition="edition"
        :item="whole"
        :version="Math.max(whole.version, item.version)"
        :can-change="canChange"
      />
      <p v-if="takesText" class="parts">
        <TickField
          :model-value="whole.aboutTeacher"
          :disabled="!canChange || about.busy.value"
          label="its text is about the teacher"
          title="If somebody else teaches the course, Today asks them to read it"
          @update:model-value="setAbout($event === true)"
        />
        <button
          v-if="canChange && whole.aboutTeacher && !whole.aboutMe"
          type="button"
          class="word-button"
          :disabled="about.busy.value"
          @click="setAbout(true)"
        >
          it is about me now
        </button>
      </p>
      <RowChecks :edition="edition" :row="`item-${item.id}`" />
      <ProblemNote v-if="about.problem.value" :problem="about.problem.value" />
      <ProblemNote v-if="publish.problem.value" :problem="publish.problem.value" />
      <TimingEditor
        v-if="part === 'opens' || part === 'due' || part === 'closes'"
        :key="part"
        :edition="edition"
        :item="whole"
        :field="part"
        @close="part = null"
      />
      <ConditionEditor
        v-if="part === 'condition'"
        :edition="edition"
        :place="{
          of: 'item',
          id: whole.id,
          lineage: whole.lineage,
          version: whole.version,
          only: item.only,
          gate: whole.condition,
          inWords: whole.conditionInWords,
        }"
        @close="part = null"
      />
      <p v-if="branches && canChange" class="line">
        <button
          type="button"
          class="word-button"
          :aria-expanded="part === 'opens-what'"
          @click="part = part === 'opens-what' ? null : 'opens-what'"
        >
          {{ item.kind === 'choice' ? 'what each option opens' : 'what its score opens' }}
        </button>
      </p>
      <component
        :is="item.kind === 'choice' ? ChoiceBranches : ScoreBranches"
        v-if="part === 'opens-what'"
        :edition="edition"
        :item="whole"
        @close="part = null"
      />
      <ForWhomEditor v-if="part === 'whom'" :edition="edition" :item="whole" @close="part = null" />
      <AsksEditor v-if="part === 'asks'" :edition="edition" :item="whole" @close="part = null" />
      <MarkedEditor v-if="part === 'marked'" :edition="edition" :item="whole" @close="part = null" />
      <OfferPart v-if="whole.offers" :edition="edition" :item="whole" :can-change="canChange" />
      <QuizEditor v-if="item.kind === 'quiz'" :edition="edition" :item="whole.id" :can-change="canChange" />
      <div class="halves">
        <ItemText
          v-if="takesText"
          :edition="edition"
          :item="whole"
          :can-change="canChange"
          @closed="answer.refetch()"
        />
        <ItemInSections v-if="whole.sections.length" :edition="edition" :item="whole" />
      </div>
      <ItemOutcomes :edition="edition" :item="whole" :can-change="canChange" />
      <ItemFiles :edition="edition" :item="whole" :can-change="canChange" />
      <NotesHere :edition="edition" :place="item.lineage" :can-change="canChange" />
      <p v-if="canChange" class="ways small">
        <button v-if="!renaming" type="button" class="word-button" @click="emit('rename')">rename</button>
        <button type="button" class="word-button" @click="emit('move', -1)">move up</button>
        <button type="button" class="word-button" @click="emit('move', 1)">move down</button>
        <button type="button" class="word-button" @click="emit('remove')">remove</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.panel {
  /* The row that it is opened from stays in view. */
  scroll-margin-top: var(--space-8);
  display: grid;
  gap: var(--space-5);
  margin-left: var(--space-9);
  padding: var(--space-4) var(--space-7) var(--space-6) 54px;
  background: var(--sheet);
  border-left: var(--stroke-strong) solid var(--ink);
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.sentence {
  font-size: var(--size-large);
  max-width: 80ch;
}
.parts {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4) var(--space-5);
}
.halves {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: start;
  gap: var(--space-5) var(--space-9);
}
.panel :deep(.editor) {
  display: grid;
  gap: var(--space-4);
  border-top: var(--stroke-hair) solid var(--hair);
  padding-top: var(--space-4);
}
.panel :deep(.line) {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-4);
}
.ways,
.panel :deep(.ways) {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
}
</style>
