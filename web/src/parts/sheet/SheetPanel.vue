<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import { questions } from '../../foundation/api/questions'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { counted } from '../../foundation/words'
import ProblemNote from '../ProblemNote.vue'
import SheetHistory from './SheetHistory.vue'
import { useSheetWriting } from './useSheetWriting'

/** A sheet that a section writes in together: its paragraphs, who wrote them, and a place to write. */
const props = defineProps<{ section: number; item: number; student: number | null }>()

const viewpoint = useViewpoint()
const sheet = useAnswer(() => questions.sheet(props.section, props.item, viewpoint.query.value), {
  refetchInterval: 5000,
})
const answer = sheet.data
const { writing, problem, apart, away, status, type, begin, finish, remove, taken, putBack, leave } = useSheetWriting(
  props.section,
  props.item,
  props.student,
)
const history = ref<number | null>(null)
const root = ref<HTMLElement | null>(null)
type Block = Schemas['SheetBlock']

/** The paragraphs, and where a new one is being written among them. */
const rows = computed(() => {
  const blocks: (Block | null)[] = [...(answer.value?.blocks ?? [])]
  const one = writing.value
  if (one && one.block === null) {
    const at = blocks.findIndex((block) => block?.id === one.after)
    blocks.splice(one.after === null ? 0 : at < 0 ? blocks.length : at + 1, 0, null)
  }
  return blocks
})
const isWritten = (block: Block | null) => writing.value !== null && (block?.id ?? null) === writing.value.block
/** Through somebody else's eyes, or at another moment, nothing is written. */
const mayWrite = computed(() => answer.value?.mayWrite === true && viewpoint.isOnesOwn.value)
const last = computed(() => answer.value?.blocks.at(-1)?.id ?? null)

async function write(block: Block | null, after: number | null = null): Promise<void> {
  await begin(block, after)
  await nextTick()
  root.value?.querySelector<HTMLTextAreaElement>('.writing textarea')?.focus()
}
</script>

<template>
  <section ref="root" class="sheet" aria-label="Written together">
    <h2>Written together</h2>
    <ProblemNote v-if="sheet.problem.value && !answer" :problem="sheet.problem.value" :again="sheet.refetch" />
    <p v-else-if="!answer" class="second" role="status">Reading …</p>
    <template v-else>
      <p class="small second">
        <template v-if="answer.mayWrite">
          Everyone in {{ answer.section }} can write here<template v-if="answer.closes"
            >, until {{ answer.closes.words }}</template
          >. What others write appears as they save it.
        </template>
        <template v-else>The sheet of {{ answer.section }}. Nothing more can be written in it now.</template>
      </p>
      <ol class="blocks">
        <li v-for="block in rows" :key="block?.id ?? 'new'">
          <form v-if="isWritten(block)" class="writing" aria-label="A paragraph" @submit.prevent="finish">
            <v-textarea
              :model-value="writing!.text"
              rows="3"
              auto-grow
              maxlength="3000"
              aria-label="What it says"
              @update:model-value="type($event)"
              @keydown.ctrl.enter.prevent="finish"
              @keydown.esc.stop="finish"
            />
            <p v-if="apart" class="small accent" role="alert">
              Somebody changed the same words just now. Yours stand below theirs, as a paragraph of their own.
            </p>
            <ProblemNote v-if="problem" :problem="problem">
              <v-btn @click="leave">Leave what I wrote</v-btn>
            </ProblemNote>
            <p class="ways">
              <v-btn type="submit" class="meant">Done</v-btn>
              <span class="small" :class="{ accent: away }" role="status">{{ status }}</span>
            </p>
          </form>
          <template v-else-if="block">
            <p class="said">{{ block.text }}</p>
            <p class="small second by">
              <span v-if="block.by">{{ block.isOwn ? 'You' : block.by }}, {{ block.at.words }}</span>
              <span v-else>from the file</span>
              <template v-if="mayWrite">
                <button type="button" class="word-button small" @click="write(block)">change</button>
                <button type="button" class="word-button small" @click="write(null, block.id)">write below</button>
                <button type="button" class="word-button small" @click="remove(block)">take out</button>
              </template>
              <button
                v-if="block.changes > 1 || (block.changes > 0 && block.n > 1)"
                type="button"
                class="word-button small"
                :aria-expanded="history === block.id"
                @click="history = history === block.id ? null : block.id"
              >
                {{ counted(block.changes, 'change') }}
              </button>
            </p>
            <SheetHistory v-if="history === block.id" :section="section" :item="item" :block="block.id" />
          </template>
        </li>
      </ol>
      <p v-if="!rows.length" class="second">Nothing is written in it yet.</p>
      <p v-if="taken" class="small" role="status">
        You took out “{{ taken.text.slice(0, 60) }}{{ taken.text.length > 60 ? ' …' : '' }}”.
        <button type="button" class="word-button small" @click="putBack">put it back</button>
      </p>
      <ProblemNote v-if="problem && !writing" :problem="problem" />
      <p v-if="mayWrite && !writing">
        <button type="button" class="word-button" @click="write(null, last)">Write a paragraph</button>
      </p>
    </template>
  </section>
</template>

<style scoped>
.sheet {
  max-width: 720px;
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  border-bottom: var(--stroke-hair) solid var(--ink);
  padding: var(--space-6) 0 var(--space-2);
  margin-bottom: var(--space-4);
}
.blocks {
  list-style: none;
  display: grid;
  gap: var(--space-5);
  padding: var(--space-5) 0;
}
.said {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-width: 68ch;
  margin: 0;
}
.by {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
  padding-top: var(--space-2);
}
.writing {
  border-left: var(--stroke-strong) solid var(--ink);
  padding-left: var(--space-5);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-5);
  padding-top: var(--space-3);
}
</style>
