<script setup lang="ts">
import StarterKit from '@tiptap/starter-kit'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import FormattedText from '../../../parts/FormattedText.vue'
import ProblemNote from '../../../parts/ProblemNote.vue'

/** The text of an item, written as it will be read. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer'] }>()
const emit = defineEmits<{ close: [] }>()

const write = useEditionCommand(toRef(props, 'edition'), '/api/editions/{edition}/write-item')
const version = ref(props.item.version)
const changed = ref(false)
const editor = useEditor({
  content: props.item.html,
  extensions: [StarterKit.configure({ heading: { levels: [2, 3] } })],
  injectCSS: false,
  editorProps: { attributes: { role: 'textbox', 'aria-label': 'Text', 'aria-multiline': 'true' } },
  onUpdate: () => (changed.value = true),
})
const conflict = computed(() => write.problem.value?.conflict ?? null)
const tools = computed(() => {
  const on = editor.value
  if (!on) return []
  const chain = () => on.chain().focus()
  return [
    {
      words: 'Heading',
      active: on.isActive('heading', { level: 2 }),
      run: () => chain().toggleHeading({ level: 2 }).run(),
    },
    { words: 'Bold', active: on.isActive('bold'), run: () => chain().toggleBold().run() },
    { words: 'Italic', active: on.isActive('italic'), run: () => chain().toggleItalic().run() },
    { words: 'List', active: on.isActive('bulletList'), run: () => chain().toggleBulletList().run() },
    { words: 'Numbered', active: on.isActive('orderedList'), run: () => chain().toggleOrderedList().run() },
    { words: 'Quote', active: on.isActive('blockquote'), run: () => chain().toggleBlockquote().run() },
  ]
})

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
    </p>
    <EditorContent :editor="editor" class="page" />
    <ProblemNote v-if="write.problem.value" :problem="write.problem.value">
      <template v-if="conflict">
        <p class="second">Now it says:</p>
        <FormattedText :html="item.html" />
        <v-btn @click="overTheirs">Use mine instead</v-btn>
      </template>
    </ProblemNote>
    <p class="ways">
      <v-btn type="submit" class="meant" :disabled="!changed || write.busy.value">Save the text</v-btn>
      <v-btn @click="emit('close')">Leave it as it was</v-btn>
    </p>
  </form>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-5);
}
.tools [aria-pressed='true'] {
  font-weight: 700;
  text-decoration-thickness: var(--stroke-strong);
}
.page {
  background: var(--paper);
  border: var(--stroke-hair) solid var(--line);
  padding: var(--space-5) var(--space-6);
  max-height: 300px;
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
.page :deep(p) {
  padding-bottom: var(--space-4);
}
.page :deep(h2) {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
  padding: var(--space-4) 0 var(--space-2);
}
.page :deep(ul) {
  list-style: disc;
  padding-left: var(--space-8);
}
.page :deep(ol) {
  list-style: decimal;
  padding-left: var(--space-8);
}
.page :deep(blockquote) {
  border-left: var(--stroke-strong) solid var(--hair);
  padding-left: var(--space-6);
  margin: 0;
}
</style>
