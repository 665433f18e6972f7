<script setup lang="ts">
import StateMark from '../../look/marks/StateMark.vue'
import RenamePanel from './RenamePanel.vue'
import type { Row } from './outlineRows'

defineProps<{ row: Row; edition: number; sections: number; canChange: boolean; opened: boolean }>()
const emit = defineEmits<{ open: [item: number]; close: [item: number] }>()
</script>

<template>
  <div v-if="row.level === 'unit'" class="row unit">
    <span class="code">{{ row.number }}</span>
    <h2>{{ row.title }}</h2>
    <span class="small">{{ row.words }}</span>
    <span v-if="!row.published" class="small state"><StateMark state="unpublished" /> unpublished</span>
  </div>
  <div v-else-if="row.level === 'lesson'" class="row lesson">
    <h3>{{ row.title }}</h3>
    <span class="small">{{ row.words }}</span>
    <span v-if="!row.published" class="small state"><StateMark state="unpublished" /> unpublished</span>
  </div>
  <template v-else>
    <div class="row item" :class="{ 'in-lesson': row.inLesson, opened }">
      <span class="code">{{ row.item.code }}</span>
      <button
        type="button"
        class="title"
        :data-stop="row.item.id"
        :aria-expanded="opened"
        @click="opened ? emit('close', row.item.id) : emit('open', row.item.id)"
      >
        {{ row.item.title }}
      </button>
      <span class="small">{{ row.words }}</span>
      <span v-if="!row.item.published" class="small state"><StateMark state="unpublished" /> unpublished</span>
    </div>
    <RenamePanel
      v-if="opened"
      :item="row.item"
      :edition="edition"
      :sections="sections"
      :can-change="canChange"
      @close="emit('close', row.item.id)"
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
.opened .title {
  font-weight: 650;
}
.state {
  display: inline-flex;
  align-items: center;
  gap: var(--space-2);
  margin-left: auto;
  white-space: nowrap;
}
</style>
