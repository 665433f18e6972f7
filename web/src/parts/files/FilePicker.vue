<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { questions } from '../../foundation/api/questions'
import type { SentFile } from '../../foundation/api/uploading'
import { useAnswer } from '../../foundation/useAnswer'
import { sizeInWords } from './fileWords'
import { useUploads } from './useUploads'

/** Where files are chosen, dropped or pasted. Each shows its progress. */
const props = defineProps<{
  label: string
  words: string
  one?: boolean
  accept?: string
  disabled?: boolean
  place?: string
}>()
const emit = defineEmits<{ sent: [files: SentFile[]] }>()

const room = useAnswer(() => questions.room())
const { going, add } = useUploads((files) => emit('sent', files), props.place)
const over = ref(false)
const input = useTemplateRef<HTMLInputElement>('input')
const limit = computed(() =>
  room.data.value ? `up to ${sizeInWords(room.data.value.largest)}${props.one ? '' : ' each'}` : '',
)

function take(files: FileList | null | undefined): void {
  over.value = false
  const chosen = [...(files ?? [])]
  if (chosen.length > 0 && !props.disabled) add(props.one ? chosen.slice(0, 1) : chosen)
}

function picked(event: Event): void {
  const field = event.target as HTMLInputElement
  take(field.files)
  // The same file can be chosen again.
  field.value = ''
}

function pasted(event: ClipboardEvent): void {
  if (!event.clipboardData?.files.length) return
  event.preventDefault()
  take(event.clipboardData.files)
}

const share = (sent: number, size: number) => Math.floor((100 * sent) / Math.max(1, size))
</script>

<template>
  <div class="picker">
    <div
      class="place"
      :class="{ over }"
      role="group"
      :aria-label="label"
      @dragover.prevent="over = true"
      @dragleave="over = false"
      @drop.prevent="take($event.dataTransfer?.files)"
      @paste="pasted"
    >
      <input
        ref="input"
        type="file"
        class="said-only"
        tabindex="-1"
        :multiple="!one"
        :accept="accept"
        :aria-label="label"
        :disabled="disabled"
        @change="picked"
      />
      <button type="button" class="word-button" :disabled="disabled" @click="input?.click()">{{ words }}</button>
      <span class="small second">or drop {{ one ? 'it' : 'them' }} here, or paste{{ limit && `, ${limit}` }}</span>
    </div>
    <ul v-if="going.length" class="going" :aria-label="`${label}: being uploaded`">
      <li v-for="file in going" :key="file.id">
        <span class="name">{{ file.name }}</span>
        <span v-if="file.problem" class="accent" role="alert">{{ file.problem.title }}</span>
        <template v-else>
          <v-progress-linear
            class="bar"
            :model-value="share(file.sent, file.size)"
            :aria-label="`${file.name}: ${share(file.sent, file.size)} % sent`"
          />
          <span class="small" role="status">{{
            file.away
              ? 'No connection. It will carry on by itself.'
              : file.sent >= file.size
                ? 'being checked'
                : `${share(file.sent, file.size)} % of ${sizeInWords(file.size)}`
          }}</span>
        </template>
        <button type="button" class="word-button small" @click="file.stop">
          {{ file.problem ? 'dismiss' : 'cancel' }}
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.picker {
  display: grid;
  gap: var(--space-3);
}
.place {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--space-3) var(--space-5);
  padding: var(--space-3) var(--space-5);
  border: var(--stroke-hair) dashed var(--line);
}
.place.over {
  border-color: var(--accent);
  background: var(--wash);
}
.going li {
  display: grid;
  grid-template-columns: minmax(100px, 220px) minmax(80px, 1fr) auto auto;
  align-items: center;
  gap: var(--space-5);
  padding: var(--space-2) 0;
}
.going .accent {
  grid-column: 2 / 4;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 600px) {
  .going li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .going .accent,
  .bar {
    grid-column: 1 / -1;
  }
}
</style>
