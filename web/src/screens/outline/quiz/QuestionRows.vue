<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import QuestionRow from './QuestionRow.vue'
import { KINDS, type QuestionForm, faultsOf, freshQuestion, inShort, isBegun, moveQuestion, textOf } from './rows'

/** The questions of a quiz in rows; one of them is open, to be written. */
const props = defineProps<{ lines: readonly Schemas['QuizLine'][] }>()
const rows = defineModel<QuestionForm[]>('rows', { required: true })
const text = defineModel<string>('text', { required: true })
const emit = defineEmits<{ busy: [isBusy: boolean] }>()

const open = ref<number | null>(rows.value.length === 1 && rows.value[0]!.html === '' ? 0 : null)
const list = useTemplateRef<HTMLElement>('list')
const written = computed(() => textOf(rows.value))
// Others in their place are not what the open row has in its fields.
watch(rows, () => (open.value = null))
watch(written, ({ text: now }) => (text.value = now), { immediate: true })
// What has just begun is not found fault with.
const faults = computed(() =>
  faultsOf(written.value.begins, props.lines).map((fault, at) =>
    rows.value[at] && isBegun(rows.value[at]) ? fault : '',
  ),
)
const kindWords = (kind: string) => KINDS.find(({ value }) => value === kind)?.title ?? kind
const named = (at: number) => inShort(rows.value[at]!.html) || `question ${at + 1}`

async function add(): Promise<void> {
  rows.value.push(freshQuestion(rows.value.at(-1)))
  await turn(rows.value.length - 1)
}
/** Opens a row, and goes to what it asks. */
async function turn(at: number | null): Promise<void> {
  open.value = at
  await nextTick()
  if (at !== null) list.value?.querySelector<HTMLElement>('[contenteditable=true]')?.focus()
}
function move(at: number, to: number | null): void {
  open.value = null
  moveQuestion(rows.value, at, to)
}
function copy(at: number): void {
  rows.value.splice(at + 1, 0, { ...(JSON.parse(JSON.stringify(rows.value[at])) as QuestionForm), draw: 0, drawOf: 0 })
  void turn(at + 1)
}
</script>

<template>
  <ol ref="list" class="ruled rows" aria-label="Questions in rows" @keydown.ctrl.enter.prevent.stop="add">
    <li v-for="(row, at) in rows" :key="at">
      <p class="head">
        <button type="button" class="asked" :aria-expanded="open === at" @click="turn(open === at ? null : at)">
          <span class="code">{{ at + 1 }}</span>
          <span class="words">{{ inShort(row.html) || 'Nothing is asked yet' }}</span>
        </button>
        <span class="small second">{{
          [
            row.faulty ? `faulty: ${row.faulty}` : '',
            row.beginsPage ? 'a new page' : '',
            row.draw ? `${row.draw} of ${row.drawOf} from here on` : '',
            kindWords(row.kind),
            `${row.points} ${row.points === 1 ? 'point' : 'points'}${row.isExtra ? ', a bonus' : ''}`,
          ]
            .filter(Boolean)
            .join(' · ')
        }}</span>
        <span class="acts small">
          <button
            type="button"
            class="word-button"
            :disabled="at === 0"
            :aria-label="`up: ${named(at)}`"
            @click="move(at, at - 1)"
          >
            up
          </button>
          <button
            type="button"
            class="word-button"
            :disabled="at === rows.length - 1"
            :aria-label="`down: ${named(at)}`"
            @click="move(at, at + 1)"
          >
            down
          </button>
          <button type="button" class="word-button" :aria-label="`copy: ${named(at)}`" @click="copy(at)">copy</button>
          <button type="button" class="word-button" :aria-label="`remove: ${named(at)}`" @click="move(at, null)">
            remove
          </button>
        </span>
      </p>
      <QuestionRow
        v-if="open === at"
        v-model="rows[at]!"
        :place="at + 1"
        :fault="faults[at] ?? ''"
        @busy="emit('busy', $event)"
      />
      <p v-else-if="faults[at]" class="small accent">{{ faults[at] }}</p>
    </li>
  </ol>
  <p class="line">
    <v-btn @click="add">Add a question</v-btn>
    <span class="small second">Ctrl+Enter adds one from anywhere.</span>
  </p>
</template>

<style scoped>
.rows {
  list-style: none;
}
.rows > li {
  padding: var(--space-2) 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 var(--space-5);
}
.asked {
  display: flex;
  align-items: baseline;
  gap: var(--space-4);
  flex: 1 1 320px;
  min-width: 0;
  text-align: left;
}
.asked[aria-expanded='true'] .words {
  font-weight: 600;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.acts {
  display: flex;
  gap: var(--space-4);
}
</style>
