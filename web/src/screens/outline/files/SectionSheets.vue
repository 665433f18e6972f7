<script setup lang="ts">
import { ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import { counted } from '../../../foundation/words'
import SheetPanel from '../../../parts/sheet/SheetPanel.vue'

/** The sheets that sections write in together, as their teachers read them. */
defineProps<{ item: Schemas['ItemAnswer'] }>()
const open = ref<number | null>(null)
</script>

<template>
  <p v-if="!item.sheets.length" class="small second">Nobody has opened it yet.</p>
  <ul v-else class="sheets" aria-label="Sheets">
    <li v-for="sheet in item.sheets" :key="sheet.section">
      <p class="small line">
        <b>{{ sheet.name }}</b>
        <span class="second">
          {{ counted(sheet.blocks, 'paragraph') }},
          {{ sheet.writers === 0 ? 'as it stood in the file' : `by ${counted(sheet.writers, 'person', 'people')}` }},
          last
          {{ sheet.lastAt.words }}
        </span>
        <button
          type="button"
          class="word-button small"
          :aria-expanded="open === sheet.section"
          :aria-label="`${open === sheet.section ? 'Close' : 'Read'} the sheet of ${sheet.name}`"
          @click="open = open === sheet.section ? null : sheet.section"
        >
          {{ open === sheet.section ? 'close' : 'read' }}
        </button>
      </p>
      <SheetPanel v-if="open === sheet.section" :section="sheet.section" :item="item.id" :student="null" />
    </li>
  </ul>
</template>

<style scoped>
.sheets {
  list-style: none;
  display: grid;
  gap: var(--space-2);
}
</style>
