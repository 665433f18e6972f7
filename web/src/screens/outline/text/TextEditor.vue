<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3'
import { computed, defineAsyncComponent, ref, toRef, useTemplateRef } from 'vue'
import { type Schemas, problemOf } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import FormattedText from '../../../parts/FormattedText.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import type { FormulaAttributes } from '../../../parts/text/formula'
import { sizeInWords } from '../../../parts/files/fileWords'
import { joined } from '../../../foundation/words'
import LinkLine from './LinkLine.vue'
import { useOthersInText } from './useOthersInText'
import { useText } from './useText'
import { keptText, useTextDraft } from './useTextDraft'

/** The text of an item, written as it will be read, and saved as one types. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; began: Schemas['TextAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-item')
const version = ref(props.item.version)
const { editor, going, tools, inTable, picture, put, link, formula, replace } = useText(
  keptText(props.edition, props.item.id)?.html ?? props.began.html,
  () => draft.type(),
)
const draft = useTextDraft(props.edition, props.item.id, props.began, editor)
const { isWritten, problem, twice, status } = draft
const { others } = useOthersInText(props.edition, props.item.id, () => void draft.read())
const busy = ref(false)
/** It is asked once more whether what was written is to be dropped. */
const dropping = ref(false)
const conflict = computed(() => write.problem.value?.conflict ?? null)
const pictures = useTemplateRef<HTMLInputElement>('pictures')
/** The address for the chosen words is being typed. */
const linking = ref(false)
/** A formula is being typed. */
const writing = ref(false)
/** The text is shown as Markdown. */
const asMarkdown = ref(false)
// What reads TeX comes only with the first formula.
const MarkdownPart = defineAsyncComponent(() => import('./MarkdownPart.vue'))
const FormulaLine = defineAsyncComponent(() => import('./FormulaLine.vue'))

async function once(act: () => Promise<unknown>): Promise<void> {
  busy.value = true
  await act().then(
    () => undefined,
    (error: unknown) => (problem.value ??= problemOf(error)),
  )
  busy.value = false
}

/** Puts the text in place: from now on students read it. */
const finish = () =>
  once(async () => {
    if (!(await draft.save()) || !editor.value) return
    // What others wrote goes with it.
    await draft.read()
    if (isWritten.value) {
      if (!(await write.run({ item: props.item.id, html: editor.value.getHTML(), version: version.value }))) return
      await draft.end()
    }
    emit('close')
  })

/** Closes it for now: what the server does not have is kept on this device. */
const pause = () =>
  once(async () => {
    await draft.save()
    emit('close')
  })

const drop = () =>
  once(async () => {
    if (draft.unsaved.value) await draft.save()
    if (await draft.end()) {
      draft.leave()
      emit('close')
    } else await draft.read()
    dropping.value = false
  })

/** Knowingly over what somebody else put in place meanwhile. */
function overTheirs(): void {
  if (conflict.value?.version) version.value = conflict.value.version
  void finish()
}

function picked(event: Event): void {
  const field = event.target as HTMLInputElement
  put([...(field.files ?? [])])
  field.value = ''
}

function setFormula(attributes: FormulaAttributes): void {
  formula.set(attributes)
  writing.value = false
}

function setText(html: string): void {
  replace(html)
  asMarkdown.value = false
}

function setLink(address: string): void {
  link.set(address)
  linking.value = false
}
</script>

<template>
  <form class="editor" @submit.prevent="finish" @keydown.esc.stop.prevent="pause">
    <p class="tools" role="toolbar" aria-label="Formatting">
      <button
        v-for="tool in tools"
        :key="tool.words"
        type="button"
        class="word-button"
        :aria-pressed="tool.active"
        @click="tool.run"
      >
        {{ tool.words }}
      </button>
      <button type="button" class="word-button" @click="linking = true">Link</button>
      <button type="button" class="word-button" @click="writing = true">Formula</button>
      <button type="button" class="word-button" @click="pictures?.click()">Picture, sound or film</button>
      <input
        ref="pictures"
        type="file"
        class="said-only"
        tabindex="-1"
        multiple
        accept="image/png,image/jpeg,image/gif,image/webp,image/svg+xml,audio/*,video/*"
        aria-label="Pictures, sounds and films for the text"
        @change="picked"
      />
      <button type="button" class="word-button" :aria-pressed="asMarkdown" @click="asMarkdown = !asMarkdown">
        Markdown
      </button>
    </p>
    <p v-if="inTable.length" class="tools" role="toolbar" aria-label="The table">
      <button v-for="tool in inTable" :key="tool.words" type="button" class="word-button small" @click="tool.run">
        {{ tool.words }}
      </button>
    </p>
    <LinkLine v-if="linking" :present="link.present.value" @set="setLink" @close="linking = false" />
    <FormulaLine
      v-if="writing"
      :key="formula.present.value?.tex"
      :present="formula.present.value"
      @set="setFormula"
      @close="writing = false"
    />
    <p v-if="picture" class="line">
      <label class="small" for="picture-says">{{ picture.words }}</label>
      <v-text-field
        id="picture-says"
        class="says"
        :model-value="picture.says"
        maxlength="500"
        @update:model-value="picture.say($event)"
      />
    </p>
    <MarkdownPart
      v-if="asMarkdown && editor"
      :html="editor.getHTML()"
      :title="item.title"
      @set="setText"
      @close="asMarkdown = false"
    />
    <p v-if="others.length" role="status">
      {{ joined(others) }} {{ others.length === 1 ? 'is' : 'are' }} writing in this text too.
    </p>
    <EditorContent v-show="!asMarkdown" :editor="editor" class="page" />
    <ul v-if="going.length" aria-label="Being uploaded">
      <li v-for="file in going" :key="file.id" class="line small">
        <span>{{ file.name }}</span>
        <span v-if="file.problem" class="accent" role="alert">{{ file.problem.title }}</span>
        <span v-else role="status">{{ sizeInWords(file.sent) }} of {{ sizeInWords(file.size) }}</span>
        <button type="button" class="word-button" @click="file.stop">{{ file.problem ? 'dismiss' : 'cancel' }}</button>
      </li>
    </ul>
    <ProblemNote v-if="write.problem.value" :problem="write.problem.value">
      <template v-if="conflict">
        <p class="second">Now it says:</p>
        <FormattedText :html="item.html" />
        <v-btn @click="overTheirs">Use mine instead</v-btn>
      </template>
    </ProblemNote>
    <ProblemNote v-if="problem" :problem="problem" />
    <p v-if="twice > 0" role="status" class="line">
      <span
        >Somebody changed {{ twice === 1 ? 'a paragraph' : 'some paragraphs' }} at the same time as you. Both versions
        are in the text now: keep the better one.</span
      >
      <button type="button" class="word-button" @click="twice = 0">dismiss</button>
    </p>
    <p v-if="dropping" class="line">
      <span>{{
        others.length
          ? `What you and ${joined(others)} wrote goes, and the text stays as it was.`
          : 'What was written goes, and the text stays as it was.'
      }}</span>
      <v-btn :disabled="busy" @click="drop">Drop it</v-btn>
      <v-btn @click="dropping = false">Keep writing</v-btn>
    </p>
    <p v-else-if="!asMarkdown" class="ways">
      <v-btn type="submit" class="meant" :disabled="going.length > 0 || busy">Use this text</v-btn>
      <v-btn :disabled="busy" @click="pause">Finish later</v-btn>
      <v-btn v-if="isWritten" :disabled="busy" @click="dropping = true">Drop what was written</v-btn>
      <span class="small" role="status">{{ status }}</span>
    </p>
    <p class="second small">
      {{
        item.published
          ? 'Saved as you type. Students keep reading the old text until you use this one.'
          : 'Saved as you type.'
      }}
    </p>
  </form>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-5);
}
.tools [aria-pressed='true'] {
  font-weight: 700;
  text-decoration-thickness: var(--stroke-strong);
}
.says {
  min-width: min(100%, 340px);
}
.page {
  background: var(--paper);
  border: var(--stroke-hair) solid var(--line);
  padding: var(--space-5) var(--space-6);
  max-height: 360px;
  overflow: auto;
}
.page :deep([contenteditable]) {
  white-space: pre-wrap;
  min-height: 120px;
  outline: none;
  font-size: var(--size-large);
}
.page:focus-within {
  outline: var(--stroke-strong) solid var(--accent);
}
</style>
