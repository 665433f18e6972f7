<script setup lang="ts">
import type { Schemas } from '../foundation/api/client'
import { spokenDate } from '../foundation/dates/typedDate'
import { useSchoolDays } from '../foundation/dates/schoolDays'
import FileLine from './files/FileLine.vue'
import RemarkBoxes from './remarks/RemarkBoxes.vue'
import RemarkedText from './remarks/RemarkedText.vue'
import type { Remark } from './remarks/remarks'

/** What a student wrote or handed in: the text, the entries of a log by day, the files and the links. */
const props = defineProps<{
  piece: Pick<Schemas['WorkPiece'], 'text' | 'files' | 'links' | 'entries'>
  large?: boolean
  /** A few files are shown as they are. */
  shown?: boolean
  /** Those whose places are to be seen in it. */
  remarks?: Remark[]
  /** The remark one is at. */
  current?: number | null
  /** A rectangle may be drawn on its pictures and pages. */
  writable?: boolean
}>()
defineEmits<{ draw: [file: number, page: number | null, box: number[]] }>()
const days = useSchoolDays()
const FEW = 4
/** Which remarks are about a whole file. */
const onFile = (file: number) =>
  (props.remarks ?? []).flatMap((one, n) => (one.at.file === file && !one.at.box ? [n] : [])).join(' ') || undefined
</script>

<template>
  <div class="piece" :class="{ large }">
    <p v-if="piece.text" class="written">
      <RemarkedText :text="piece.text" :remarks="remarks ?? []" :current="current" />
    </p>
    <dl v-if="piece.entries.length" class="log" aria-label="Log">
      <template v-for="(entry, at) in piece.entries" :key="at">
        <dt>{{ at > 0 && piece.entries[at - 1]!.on === entry.on ? '' : spokenDate(entry.on, days) }}</dt>
        <dd class="written">
          <RemarkedText :text="entry.text" :remarks="remarks ?? []" :entry="at" :current="current" />
        </dd>
      </template>
    </dl>
    <FileLine
      v-for="file in piece.files"
      :key="file.id"
      :file="file"
      :shown="shown && piece.files.length < FEW"
      :data-remark="onFile(file.id)"
    >
      <template #over="{ page }">
        <RemarkBoxes
          :file="file.id"
          :page="page"
          :remarks="remarks ?? []"
          :current="current"
          :writable="writable"
          @draw="$emit('draw', file.id, page, $event)"
        />
      </template>
    </FileLine>
    <ul v-if="piece.links.length" class="links" aria-label="Links">
      <li v-for="link in piece.links" :key="link">
        <a :href="link" target="_blank" rel="noopener noreferrer">{{ link }}</a>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.piece {
  display: grid;
  gap: var(--space-3);
}
.large .written {
  font-size: var(--size-large);
}
.written {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-width: 68ch;
  margin: 0;
}
.log {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: var(--space-4) var(--space-6);
}
dt {
  color: var(--ink-2);
}
.links {
  list-style: none;
  overflow-wrap: anywhere;
}
@media (max-width: 600px) {
  .log {
    grid-template-columns: minmax(0, 1fr);
    gap: var(--space-2);
  }
}
</style>
