<script setup lang="ts">
import { ref } from 'vue'
import { fromMarkdown, toMarkdown } from './markdown'
import { cleanPasted } from './pasted'

/** A text as Markdown: to change it so, to bring one in from a file, and to save it as one. */
const props = defineProps<{ html: string; title: string }>()
const emit = defineEmits<{ set: [html: string]; close: [] }>()

const MOST = 200_000
const markdown = ref(toMarkdown(props.html))

/** A file of Markdown, or a page, which is put into Markdown. */
async function read(files: File | File[] | null): Promise<void> {
  const file = Array.isArray(files) ? files[0] : files
  if (!file) return
  const text = (await file.slice(0, 4 * MOST).text()).replace(/^\uFEFF/, '')
  markdown.value = (/\.html?$/i.test(file.name) ? toMarkdown(cleanPasted(text)) : text).slice(0, MOST)
}

function save(): void {
  const address = URL.createObjectURL(new Blob([`${markdown.value}\n`], { type: 'text/markdown' }))
  const link = document.createElement('a')
  link.href = address
  link.download = `${props.title.replace(/[\\/:*?"<>|]+/g, ' ').trim() || 'text'}.md`
  link.click()
  URL.revokeObjectURL(address)
}
</script>

<template>
  <div class="markdown">
    <v-textarea v-model="markdown" class="source" rows="14" :maxlength="MOST" aria-label="The text as Markdown" />
    <p class="line">
      <v-btn class="meant" @click="emit('set', fromMarkdown(markdown))">Use this text</v-btn>
      <v-btn @click="emit('close')">Leave it as it was</v-btn>
      <button type="button" class="word-button" @click="save">save it as a file</button>
      <v-file-input
        class="file"
        aria-label="A file of Markdown or HTML"
        placeholder="or bring in a file"
        accept=".md,.markdown,.txt,.html,.htm,text/markdown,text/html,text/plain"
        @update:model-value="read"
      />
      <span class="small second">Formulas stand between dollars: $p = F/A$.</span>
    </p>
  </div>
</template>

<style scoped>
.markdown {
  display: grid;
  gap: var(--space-4);
}
.source :deep(textarea) {
  font-family: ui-monospace, monospace;
  line-height: 1.5;
}
.file {
  max-width: 220px;
}
</style>
