<script setup lang="ts">
import { EditorContent } from '@tiptap/vue-3'
import { defineAsyncComponent, ref, useTemplateRef, watch } from 'vue'
import { sizeInWords } from '../../../../parts/files/fileWords'
import type { FormulaAttributes } from '../../../../parts/text/formula'
import LinkLine from './LinkLine.vue'
import type { useText } from '../useText'

/** A formatted text being written: what it can be given, the text itself, and what is being uploaded for it. */
const props = defineProps<{
  text: ReturnType<typeof useText>
  /** Something else stands in the place of the text. */
  isHidden?: boolean
}>()
const emit = defineEmits<{ busy: [isBusy: boolean] }>()

const { editor, going, tools, inTable, picture, put, link, formula } = props.text
const pictures = useTemplateRef<HTMLInputElement>('pictures')
/** The address for the chosen words is being typed. */
const linking = ref(false)
/** A formula is being typed. */
const writing = ref(false)
// What reads TeX comes only with the first formula.
const FormulaLine = defineAsyncComponent(() => import('./FormulaLine.vue'))

watch(
  () => going.length > 0,
  (isBusy) => emit('busy', isBusy),
)
function picked(event: Event): void {
  const field = event.target as HTMLInputElement
  put([...(field.files ?? [])])
  field.value = ''
}
function setFormula(attributes: FormulaAttributes): void {
  formula.set(attributes)
  writing.value = false
}
function setLink(address: string): void {
  link.set(address)
  linking.value = false
}
</script>

<template>
  <div class="writing">
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
      <slot name="tools" />
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
    <slot />
    <EditorContent v-show="!isHidden" :editor="editor" class="page" />
    <ul v-if="going.length" aria-label="Being uploaded">
      <li v-for="file in going" :key="file.id" class="line small">
        <span>{{ file.name }}</span>
        <span v-if="file.problem" class="accent" role="alert">{{ file.problem.title }}</span>
        <span v-else role="status">{{ sizeInWords(file.sent) }} of {{ sizeInWords(file.size) }}</span>
        <button type="button" class="word-button" @click="file.stop">{{ file.problem ? 'dismiss' : 'cancel' }}</button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.writing {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-4);
}
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
