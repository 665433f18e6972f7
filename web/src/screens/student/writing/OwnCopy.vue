<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import type { SentFile } from '../../../foundation/api/uploading'
import { useViewpoint } from '../../../foundation/useViewpoint'
import FileLine from '../../../parts/files/FileLine.vue'
import FilePicker from '../../../parts/files/FilePicker.vue'
import TableCells from './TableCells.vue'
import { readText } from './copyText'

/** A student's own copy of a file: worked in here, or saved, worked in elsewhere and put back. */
const props = defineProps<{
  copy: Schemas['GivenCopy']
  file: Schemas['FileAnswer']
  /** What is written in it and not handed in; null: nothing. */
  written: string | null
  canWrite: boolean
}>()
const emit = defineEmits<{ write: [text: string]; replace: [file: SentFile] }>()

const LARGEST_TABLE = 3000
const viewpoint = useViewpoint()
const open = ref(false)
const text = ref('')
const failed = ref(false)
const asking = ref(false)
const original = ref(false)
/** As cells while there are few enough to be drawn. */
const asTable = ref(false)
const saved = computed(() =>
  props.written === null
    ? `${props.file.address}?${new URLSearchParams({ ...viewpoint.query.value, save: 'true' }).toString()}`
    : `data:text/plain;charset=utf-8,${encodeURIComponent(props.written)}`,
)

async function read(address: string): Promise<string | null> {
  const found = await readText(address)
  failed.value = found === null
  return found
}

async function turn(): Promise<void> {
  if (!open.value) {
    const found = props.written ?? (await read(props.file.address))
    if (found === null) return
    text.value = found
    asTable.value = props.file.kind === 'table' && found.split(/[,;\t\n]/).length <= LARGEST_TABLE
  }
  open.value = !open.value
}

function write(typed: string): void {
  text.value = typed
  emit('write', typed)
}

async function startAgain(): Promise<void> {
  asking.value = false
  const found = await read(props.copy.original.address)
  if (found !== null) write(found)
}
</script>

<template>
  <div class="copy" role="group" :aria-label="`Your copy: ${file.name}`">
    <p class="line">
      <b class="name">{{ file.name }}</b>
      <span class="small second">your copy</span>
      <button
        v-if="copy.workedInHere && canWrite"
        type="button"
        class="word-button small"
        :aria-expanded="open"
        :aria-label="`${open ? 'Close' : 'Work in it'}: ${file.name}`"
        @click="turn"
      >
        {{ open ? 'close' : 'work in it' }}
      </button>
      <a :href="saved" :download="file.name" class="small" :aria-label="`Save ${file.name}`">save</a>
      <button
        type="button"
        class="word-button small"
        :aria-expanded="original"
        :aria-label="`As it was given: ${file.name}`"
        @click="original = !original"
      >
        as it was given
      </button>
      <button
        v-if="open && canWrite"
        type="button"
        class="word-button small"
        :aria-label="`Start again: ${file.name}`"
        @click="asking = true"
      >
        start again
      </button>
    </p>
    <p v-if="failed" class="small accent" role="alert">It can’t be read just now. Try again in a moment.</p>
    <FileLine v-if="original" :file="copy.original" shown />
    <div v-if="asking" class="ask" role="alert">
      <p>Everything you wrote in this copy will be gone. Start again with the file as it was given?</p>
      <p class="ways">
        <v-btn class="meant" @click="startAgain">Start again</v-btn>
        <v-btn @click="asking = false">Keep what I wrote</v-btn>
      </p>
    </div>
    <template v-if="open">
      <TableCells v-if="asTable" :text="text" :name="file.name" :disabled="!canWrite" @write="write" />
      <v-textarea
        v-else
        :model-value="text"
        rows="12"
        auto-grow
        max-rows="30"
        maxlength="200000"
        :aria-label="file.name"
        :disabled="!canWrite"
        @update:model-value="write($event)"
      />
    </template>
    <template v-if="!copy.workedInHere && canWrite">
      <p class="small">Save it, work in it, then put your file here in its place.</p>
      <FilePicker
        one
        :label="`Your work in ${file.name}`"
        words="Put in the file I worked in"
        @sent="([sent]) => sent && emit('replace', sent)"
      />
    </template>
  </div>
</template>

<style scoped>
.copy {
  display: grid;
  gap: var(--space-3);
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-5);
}
.name {
  overflow-wrap: anywhere;
}
.ask {
  padding: var(--space-4) var(--space-6);
  border-left: var(--stroke-strong) solid var(--accent);
  background: var(--wash);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-5);
  padding-top: var(--space-3);
}
</style>
