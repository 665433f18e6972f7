<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3'
import { computed, defineAsyncComponent, ref, toRef, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import FormattedText from '../../../parts/FormattedText.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'
import type { FormulaAttributes } from '../../../parts/text/formula'
import { sizeInWords } from '../../../parts/files/fileWords'
import LinkLine from './LinkLine.vue'
import { useText } from './useText'

/** The text of an item, written as it will be read. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-item')
const version = ref(props.item.version)
const { editor, changed, going, tools, inTable, picture, put, link, formula, replace } = useText(props.item.html)
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

async function send(): Promise<void> {
  if (!editor.value) return
  await write.run({ item: props.item.id, html: editor.value.getHTML(), version: version.value }).then(
    () => emit('close'),
    () => undefined,
  )
}

/** Knowingly over what somebody else wrote meanwhile. */
function overTheirs(): void {
  if (conflict.value?.version) version.value = conflict.value.version
  void send()
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
  <form class="editor" @submit.prevent="send" @keydown.esc.stop.prevent="emit('close')">
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
    <p v-if="!asMarkdown" class="ways">
      <v-btn type="submit" class="meant" :disabled="!changed || going.length > 0 || write.busy.value"
        >Save the text</v-btn
      >
      <v-btn @click="emit('close')">Leave it as it was</v-btn>
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
