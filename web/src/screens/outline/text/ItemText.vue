<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import FormattedText from '../../../parts/FormattedText.vue'

/** The text of an item as students read it, and the way to write it. */
const props = defineProps<{ edition: number; item: Schemas['ItemAnswer']; canChange: boolean }>()
const emit = defineEmits<{ closed: [] }>()

const WriteText = defineAsyncComponent(() => import('./WriteText.vue'))
const isOpen = ref(false)
const opens = useTemplateRef<HTMLElement>('opens')
const words = computed(() =>
  props.item.writing
    ? 'Continue writing'
    : props.item.html
      ? 'Change the text'
      : props.item.kind === 'task'
        ? 'Write its instructions'
        : 'Write its text',
)

/** What was written meanwhile shows under it. */
async function close(): Promise<void> {
  isOpen.value = false
  emit('closed')
  await nextTick()
  opens.value?.focus()
}
</script>

<template>
  <div class="text">
    <WriteText v-if="isOpen" :edition="edition" :item="item" @close="close" />
    <template v-else>
      <div v-if="item.html" class="preview" tabindex="0" role="group" aria-label="Its text">
        <FormattedText :html="item.html" />
      </div>
      <p v-if="canChange" class="line">
        <span v-if="item.writing" class="second">
          A newer text, last saved by {{ item.writing.by }} {{ item.writing.at.words }}, is not in use yet.
        </span>
        <button ref="opens" type="button" class="word-button" @click="isOpen = true">{{ words }}</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.text {
  display: grid;
  gap: var(--space-4);
}
.preview {
  max-height: 180px;
  overflow: auto;
  border-left: var(--stroke-hair) solid var(--hair);
  padding-left: var(--space-6);
}
</style>
