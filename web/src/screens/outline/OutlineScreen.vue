<script setup lang="ts">
import { ref, toRef, useTemplateRef } from 'vue'
import { useScreenKeys } from '../../foundation/useKeys'
import SectionKey from '../../look/marks/SectionKey.vue'
import ProblemNote from '../../parts/ProblemNote.vue'
import TitleBlock from '../../parts/TitleBlock.vue'
import OutlineRow from './OutlineRow.vue'
import { counted } from './outlineRows'
import { useOutline } from './useOutline'

/** What is the course? Units, lessons, items; a row opens in place, under itself. */
const props = defineProps<{ edition: number }>()

const { outline, problem, rows, facts } = useOutline(toRef(props, 'edition'))
const opened = ref<number | null>(null)
const list = useTemplateRef<HTMLElement>('list')

function step(by: number): void {
  const stops = [...(list.value?.querySelectorAll<HTMLElement>('[data-stop]') ?? [])]
  const at = stops.indexOf(document.activeElement as HTMLElement)
  stops[at < 0 ? 0 : Math.min(stops.length - 1, Math.max(0, at + by))]?.focus()
}

useScreenKeys([
  { key: 'ArrowDown', words: 'to the next item', run: () => step(1) },
  { key: 'ArrowUp', words: 'to the item before', run: () => step(-1) },
  { key: 'Enter', words: 'open the item' },
  { key: 'Escape', words: 'close it again, unchanged', run: () => (opened.value = null) },
])

/** Closes an item and leaves the focus where it was opened from. */
function close(item: number): void {
  opened.value = null
  list.value?.querySelector<HTMLElement>(`[data-stop="${item}"]`)?.focus()
}
</script>

<template>
  <main class="body">
    <ProblemNote v-if="problem && !outline" :problem="problem" />
    <p v-else-if="!outline" class="second" role="status">Reading the course …</p>
    <template v-else>
      <p class="follow ruled-head">
        <span class="small">{{
          outline.sections.length === 0 ? 'No section follows this edition' : 'Followed by'
        }}</span>
        <span v-for="section in outline.sections" :key="section.id">
          <SectionKey :letter="section.letter" :name="section.name" />
          <span class="small size">{{ counted(section.students, 'student', 'students') }}</span>
        </span>
        <span v-if="outline.state === 'resting'" class="rest">At rest: it can be read, not changed</span>
      </p>
      <p v-if="rows.length === 0" class="second none">This course has no units yet.</p>
      <div ref="list" class="list" tabindex="-1">
        <OutlineRow
          v-for="row in rows"
          :key="row.key"
          :row="row"
          :edition="edition"
          :sections="outline.sections.length"
          :can-change="outline.canChange"
          :opened="row.level === 'item' && opened === row.item.id"
          @open="opened = $event"
          @close="close"
        />
      </div>
    </template>
  </main>
  <TitleBlock v-if="outline" :edition="edition" :facts="facts" :can-change="outline.canChange" />
</template>

<style scoped>
.body {
  display: grid;
  grid-template-rows: auto 1fr;
  min-height: 0;
}
.follow {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-2) var(--space-8);
}
.size {
  padding-left: var(--space-4);
}
.rest {
  margin-left: auto;
  color: var(--accent);
}
.none {
  padding: var(--space-7) 0;
}
.list {
  overflow: auto;
  min-height: 0;
  padding-bottom: var(--space-8);
}
</style>
