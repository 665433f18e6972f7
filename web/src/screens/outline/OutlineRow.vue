<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../foundation/api/client'
import SectionKey from '../../look/marks/SectionKey.vue'
import StateMark from '../../look/marks/StateMark.vue'
import GroupPanel from './GroupPanel.vue'
import ItemPanel from './ItemPanel.vue'
import { useLevels } from '../../foundation/levels'
import { type ItemRow, type Row, hiddenBy, onlyIn, titleOf } from './outlineRows'

const props = defineProps<{
  row: Row
  items: ItemRow[]
  edition: number
  sections: number
  sectionList: Schemas['OutlineSection'][]
  canChange: boolean
  opened: boolean
}>()
const emit = defineEmits<{ open: []; close: []; remove: []; move: [by: -1 | 1]; drag: []; drop: [] }>()
const levels = useLevels()
const over = ref(false)
const sectionNames = computed(() => Object.fromEntries(props.sectionList.map((one) => [one.letter, one.name])))

function drag(event: DragEvent): void {
  event.dataTransfer?.setData('text/plain', titleOf(props.row))
  emit('drag')
}

function drop(): void {
  over.value = false
  emit('drop')
}
</script>

<template>
  <div
    class="row"
    :class="[row.level, { opened, over }]"
    :draggable="canChange && !opened"
    @dragstart="drag"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <span v-if="row.level !== 'lesson'" class="code">{{
      row.level === 'unit' ? (row.unit.number ?? '–') : row.item.code
    }}</span>
    <component :is="row.level === 'unit' ? 'h2' : row.level === 'lesson' ? 'h3' : 'span'">
      <button
        type="button"
        class="title"
        :data-stop="row.key"
        :aria-expanded="opened"
        @click="opened ? emit('close') : emit('open')"
        @keydown.alt.up.prevent="canChange && emit('move', -1)"
        @keydown.alt.down.prevent="canChange && emit('move', 1)"
      >
        {{ titleOf(row) }}
      </button>
    </component>
    <span class="small words">
      {{ row.words }}<template v-if="row.level === 'item' && row.item.due">, due {{ row.item.due }}</template>
    </span>
    <span v-if="row.level === 'item' && row.item.condition" class="small words condition" :title="row.item.condition">{{
      row.item.condition
    }}</span>
    <span class="end">
      <span v-if="hiddenBy(row, levels)" class="small state"
        ><StateMark state="unpublished" /> {{ hiddenBy(row, levels) }}</span
      >
      <span v-if="onlyIn(row)" class="small state">
        only in <SectionKey :letter="onlyIn(row)!" :name="sectionNames[onlyIn(row)!] ?? ''" />
      </span>
      <template v-if="row.level !== 'unit'">
        <SectionKey
          v-for="letter in row.level === 'item' ? row.item.differs : row.lesson.differs"
          :key="letter"
          :letter="letter"
          :name="`${sectionNames[letter]} differs`"
          short
        />
      </template>
    </span>
  </div>
  <template v-if="opened">
    <ItemPanel
      v-if="row.level === 'item'"
      :item="row.item"
      :items="items"
      :edition="edition"
      :sections="sections"
      :can-change="canChange"
      @close="emit('close')"
      @remove="emit('remove')"
      @move="emit('move', $event)"
    />
    <GroupPanel
      v-else
      :row="row"
      :edition="edition"
      :sections="sectionList"
      :can-change="canChange"
      @close="emit('close')"
      @remove="emit('remove')"
      @move="emit('move', $event)"
    />
  </template>
</template>

<style scoped>
.row {
  display: flex;
  align-items: baseline;
  gap: var(--space-6);
  padding: var(--space-3) 0;
  border-bottom: var(--stroke-hair) solid var(--faint-hair);
}
.row.over {
  border-color: var(--accent);
}
.unit {
  padding-top: var(--space-7);
  border-color: var(--hair);
}
h2 {
  font: 580 var(--size-unit) / 1.3 var(--face-display);
}
.lesson {
  padding-left: var(--space-9);
  padding-top: var(--space-5);
}
h3 {
  font-weight: 650;
}
.code {
  flex: none;
  width: 44px;
  color: var(--ink-2);
}
.unit .code {
  width: 28px;
  font-size: var(--size-unit);
}
.item {
  padding-left: var(--space-9);
}
.item.opened {
  border-color: transparent;
}
.title:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
  text-decoration-color: var(--line);
}
.item.opened .title {
  font-weight: 650;
}
.words {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.condition {
  flex: 0 2 auto;
  font-style: italic;
}
.end {
  display: inline-flex;
  align-items: center;
  gap: var(--space-5);
  margin-left: auto;
  white-space: nowrap;
}
.state {
  display: inline-flex;
  align-items: center;
  gap: var(--space-2);
}
</style>
