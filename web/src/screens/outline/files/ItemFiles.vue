<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { useEditionCommand } from '../../../foundation/commands/useEditionCommand'
import ProblemNote from '../../../parts/ProblemNote.vue'
import FileLine from '../../../parts/files/FileLine.vue'
import FilePicker from '../../../parts/files/FilePicker.vue'
import FileGiving from './FileGiving.vue'
import type { SentFile } from '../../../foundation/api/uploading'

/** The files of an item: added, shown, replaced, renamed, moved, removed. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()

type OneFile = Schemas['ItemFileAnswer']
const edition = toRef(props, 'edition')
/** Copies are handed in, and only a text is written in together; any other file is there to be read. */
const hasWays = (file: OneFile) =>
  file.given !== 'read' || file.file.kind === 'text' || props.item.kind === 'task' || props.item.kind === 'handout'
const attach = useEditionCommand(edition, '/api/editions/{edition}/attach-files')
const replace = useEditionCommand(edition, '/api/editions/{edition}/replace-file')
const rename = useEditionCommand(edition, '/api/editions/{edition}/rename-file')
const move = useEditionCommand(edition, '/api/editions/{edition}/move-file')
const remove = useEditionCommand(edition, '/api/editions/{edition}/remove-file')
const commands = [attach, replace, rename, move, remove]
const problem = computed(() => commands.map((one) => one.problem.value).find((one) => one) ?? null)
const busy = computed(() => commands.some((one) => one.busy.value))

/** Which file is being replaced or renamed, or shows its earlier versions. */
const part = ref<{ of: number; what: 'replace' | 'rename' | 'before' } | null>(null)
const name = ref('')
const isPart = (file: OneFile, what: string) => part.value?.of === file.file.id && part.value.what === what

function turn(file: OneFile, what: 'replace' | 'rename' | 'before'): void {
  part.value = isPart(file, what) ? null : { of: file.file.id, what }
  name.value = file.file.name
}

/** Runs a command, and closes what was open for it. */
async function done(doing: Promise<unknown>): Promise<void> {
  commands.forEach((one) => !one.busy.value && one.reset())
  await doing.then(
    () => (part.value = null),
    () => undefined,
  )
}

const put = (files: SentFile[]) => done(attach.run({ item: props.item.id, uploads: files.map((file) => file.upload) }))
const about = (file: OneFile) => ({ item: props.item.id, file: file.file.id, version: file.version })

/** One place up or down: after the one before last, or after the next. */
function shift(file: OneFile, by: -1 | 1): void {
  const all = props.item.files
  const at = all.indexOf(file)
  const after = by < 0 ? all[at - 2] : all[at + 1]
  void done(move.run({ ...about(file), after: after?.file.id ?? null }))
}
</script>

<template>
  <section v-if="canChange || item.files.length" class="files" aria-label="Its files">
    <h3>Files</h3>
    <ul v-if="item.files.length">
      <li v-for="(file, at) in item.files" :key="file.file.id">
        <FileLine :file="file.file">
          <template v-if="canChange">
            <button
              type="button"
              class="word-button small"
              :aria-label="`Replace ${file.file.name}`"
              @click="turn(file, 'replace')"
            >
              replace
            </button>
            <button
              type="button"
              class="word-button small"
              :aria-label="`Rename ${file.file.name}`"
              @click="turn(file, 'rename')"
            >
              rename
            </button>
            <button
              v-if="at > 0"
              type="button"
              class="word-button small"
              :disabled="busy"
              :aria-label="`Move ${file.file.name} up`"
              @click="shift(file, -1)"
            >
              up
            </button>
            <button
              v-if="at < item.files.length - 1"
              type="button"
              class="word-button small"
              :disabled="busy"
              :aria-label="`Move ${file.file.name} down`"
              @click="shift(file, 1)"
            >
              down
            </button>
            <button
              type="button"
              class="word-button small"
              :disabled="busy"
              :aria-label="`Remove ${file.file.name}`"
              @click="done(remove.run(about(file)))"
            >
              remove
            </button>
          </template>
          <button
            v-if="file.before.length"
            type="button"
            class="word-button small"
            :aria-expanded="isPart(file, 'before')"
            :aria-label="`Earlier versions of ${file.file.name}`"
            @click="turn(file, 'before')"
          >
            earlier versions
          </button>
        </FileLine>
        <FileGiving v-if="hasWays(file)" :edition="edition" :item="item" :file="file" :can-change="canChange" />
        <form v-if="isPart(file, 'rename')" class="line" @submit.prevent="done(rename.run({ ...about(file), name }))">
          <label class="small" :for="`file-${file.file.id}`">Its name</label>
          <v-text-field :id="`file-${file.file.id}`" v-model="name" maxlength="200" autofocus />
          <v-btn type="submit" class="meant" :disabled="busy || name === file.file.name">Rename it</v-btn>
          <v-btn @click="part = null">Leave it as it is</v-btn>
        </form>
        <FilePicker
          v-if="isPart(file, 'replace')"
          one
          :label="`Replacement for ${file.file.name}`"
          words="Choose the new file"
          :disabled="busy"
          @sent="([sent]) => sent && done(replace.run({ ...about(file), upload: sent.upload }))"
        />
        <div v-if="isPart(file, 'before')" class="before">
          <p class="small second">
            {{ file.broughtBy }} added {{ file.file.name }}, {{ file.broughtAt.words }}. Students can’t see the earlier
            versions.
          </p>
          <FileLine v-for="older in file.before" :key="older.file.id" :file="older.file">
            <span class="small second">{{ older.broughtBy }}, {{ older.broughtAt.words }}</span>
          </FileLine>
        </div>
      </li>
    </ul>
    <FilePicker v-if="canChange" label="Add files" words="Add files" :disabled="busy" @sent="put" />
    <ProblemNote v-if="problem" :problem="problem" />
  </section>
</template>

<style scoped>
.files {
  display: grid;
  gap: var(--space-3);
}
h3 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
li {
  display: grid;
  gap: var(--space-3);
  padding: var(--space-2) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.before {
  display: grid;
  gap: var(--space-2);
  padding-left: var(--space-6);
  border-left: var(--stroke-hair) solid var(--hair);
}
</style>
