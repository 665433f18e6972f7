<script setup lang="ts">
import { useEventListener, useMutationObserver, useResizeObserver } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import WrittenPiece from '../WrittenPiece.vue'
import RemarkField from './RemarkField.vue'
import {
  type Made,
  type Place,
  type Remark,
  type Remarked,
  byPlace,
  chosenIn,
  place,
  quoteOf,
  stepped,
} from './remarks'

/** What was handed in, with remarks in its margin, each beside the place it is about. */
const props = defineProps<{
  piece: Remarked
  writable?: boolean
  large?: boolean
  shown?: boolean
  /** What whoever writes has remarked before. */
  made?: Made[]
}>()
const remarks = defineModel<Remark[]>({ required: true })
const emit = defineEmits<{
  /** All is written: it is to go back. */
  send: []
}>()

/** Between two remarks that would overlap, in pixels. */
const GAP = 10
const body = useTemplateRef<HTMLElement>('body')
const hasMargin = computed(() => props.writable || remarks.value.length > 0)
const order = computed(() => {
  const compare = byPlace(props.piece)
  return remarks.value.map((_, n) => n).sort((a, b) => compare(remarks.value[a]!, remarks.value[b]!))
})
/** The remark one is at. */
const current = ref<number | null>(null)
/** The place that is chosen in the text, and where below it there is room. */
const chosen = ref<{ at: Place; top: number; left: number } | null>(null)
const tops = ref<number[]>([])
const height = ref(0)

/** Each stands beside its place, or below the one before it. */
function lay(): void {
  const within = body.value
  if (!within) return
  const top = within.getBoundingClientRect().top
  const found: number[] = []
  let next = 0
  for (const n of order.value) {
    const about = within.querySelector(`[data-remark~="${n}"]`)
    found[n] = Math.max(next, about ? about.getBoundingClientRect().top - top : next)
    next = found[n] + (within.querySelector<HTMLElement>(`[data-said="${n}"]`)?.offsetHeight ?? 0) + GAP
  }
  tops.value = found
  height.value = next
}
watch([remarks, () => props.piece], () => void nextTick(lay), { immediate: true, deep: true })
useResizeObserver(body, lay)
// What is offered below a remark makes room for itself.
useMutationObserver(body, lay, { childList: true, subtree: true })

useEventListener(document, 'selectionchange', () => {
  const within = body.value
  const selection = document.getSelection()
  const at = props.writable && within ? chosenIn(within, selection) : null
  if (!at) return void (chosen.value = null)
  const [stretch, page] = [selection!.getRangeAt(0).getBoundingClientRect(), within!.getBoundingClientRect()]
  chosen.value = { at, top: stretch.bottom - page.top, left: Math.max(0, stretch.left - page.left) }
})

const fieldOf = (n: number) => body.value?.querySelector<HTMLElement>(`[data-said="${n}"] textarea`)
function begin(at: Place | null): void {
  const where = at ?? stepped(props.piece, remarks.value, null, 1)
  if (!props.writable || !where) return
  document.getSelection()?.removeAllRanges()
  const n = remarks.value.length
  remarks.value = [...remarks.value, { at: where, text: '' }]
  void nextTick(() => fieldOf(n)?.focus())
}
const say = (n: number, to: Partial<Remark>) =>
  (remarks.value = remarks.value.map((one, at) => (at === n ? { ...one, ...to } : one)))
function remove(n: number): void {
  remarks.value = remarks.value.filter((_, at) => at !== n)
  current.value = null
}
function left(n: number): void {
  current.value = null
  if (!remarks.value[n]?.text.trim()) remove(n)
}

function pressed(event: KeyboardEvent, n: number): void {
  const field = event.target as HTMLElement
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
  if (by && event.altKey) {
    event.preventDefault()
    const at = stepped(props.piece, remarks.value, remarks.value[n]!.at, by)
    if (at) say(n, { at })
    void nextTick(() => body.value?.querySelector(`[data-remark~="${n}"]`)?.scrollIntoView({ block: 'nearest' }))
  } else if (event.key === 'Enter' && !event.shiftKey) {
    event.preventDefault()
    field.blur()
    if (event.ctrlKey) emit('send')
  } else if (event.key === 'Escape') field.blur()
}
defineExpose({ begin: () => begin(chosen.value?.at ?? null) })
</script>

<template>
  <div class="holder">
    <div ref="body" class="body" :class="{ margined: hasMargin }" :style="{ '--least': `${height}px` }">
      <WrittenPiece
        :piece="piece"
        :large="large"
        :shown="shown || remarks.some((one) => one.at.box !== null)"
        :remarks="remarks"
        :current="current"
        :writable="writable"
        @draw="(file, page, box) => begin(place({ file, page, box }))"
      />
      <button
        v-if="chosen"
        type="button"
        class="here small"
        :style="{ '--top': `${chosen.top}px`, '--left': `${chosen.left}px` }"
        @mousedown.prevent
        @click="begin(chosen.at)"
      >
        remark on this
      </button>
      <div v-if="hasMargin" class="margin">
        <p v-if="writable && !remarks.length" class="small hint">
          To write a remark, select some words, draw on a picture or press R.
        </p>
        <ol v-if="remarks.length" aria-label="Remarks">
          <li
            v-for="n in order"
            :key="n"
            :data-said="n"
            :style="{ '--top': `${tops[n] ?? 0}px` }"
            @mouseenter="current = n"
            @mouseleave="current = null"
          >
            <p class="quote small" :class="{ named: remarks[n]!.at.file !== null }">
              {{ quoteOf(piece, remarks[n]!.at) }}
            </p>
            <template v-if="writable">
              <RemarkField
                :model-value="remarks[n]!.text"
                :label="`Remark on ${quoteOf(piece, remarks[n]!.at)}`"
                :made="made ?? []"
                :longest="2000"
                @update:model-value="say(n, { text: $event })"
                @focusin="current = n"
                @focusout="left(n)"
                @keydown="pressed($event, n)"
              />
              <p class="small keys">Enter: done · Alt ↑ ↓: another sentence</p>
              <button type="button" class="word-button small remove" @mousedown.prevent @click="remove(n)">
                remove<span class="said-only"> the remark on {{ quoteOf(piece, remarks[n]!.at) }}</span>
              </button>
            </template>
            <p v-else class="said">{{ remarks[n]!.text }}</p>
          </li>
        </ol>
      </div>
    </div>
  </div>
</template>

<style scoped>
.holder {
  container-type: inline-size;
}
.body {
  position: relative;
}
.margined {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 232px;
  gap: var(--space-7);
  min-height: var(--least);
}
.margin {
  border-left: var(--stroke-hair) solid var(--accent);
  padding-left: var(--space-5);
}
ol {
  list-style: none;
  padding: 0;
}
li {
  position: absolute;
  top: var(--top);
  width: 216px;
}
li :deep(.v-field .v-field__input) {
  min-height: 34px;
  padding: var(--space-2) var(--space-3);
  font-size: var(--size-text);
  line-height: 1.4;
  color: var(--accent);
}
/* What one can do with a remark stands below the one that one is at. */
.remove,
.keys {
  display: none;
}
li:hover .remove,
li:focus-within :is(.remove, .keys) {
  display: block;
}
.here {
  position: absolute;
  z-index: 1;
  top: var(--top);
  left: var(--left);
  padding: var(--space-2) var(--space-4);
  background: var(--sheet);
  border: var(--stroke-hair) solid var(--accent);
}
.said {
  color: var(--accent);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
/* Where one sees which words are meant, they are only read out. */
.quote:not(.named) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.hint,
.keys {
  color: var(--ink-2);
}
/* Where there is no room for a margin, the remarks stand below, each after the words it is about. */
@container (max-width: 600px) {
  .margined {
    grid-template-columns: minmax(0, 1fr);
    min-height: 0;
  }
  ol {
    display: grid;
    gap: var(--space-4);
  }
  li {
    position: static;
    width: auto;
  }
  .quote:not(.named) {
    position: static;
    width: auto;
    height: auto;
    overflow-wrap: anywhere;
    clip-path: none;
  }
}
</style>
