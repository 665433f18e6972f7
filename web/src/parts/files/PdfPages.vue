<script setup lang="ts">
import { onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { type OpenPdf, openPdf } from './pdf'

/** The pages of a PDF file, one at a time. */
const props = defineProps<{ address: string; name: string }>()

const pdf = shallowRef<OpenPdf | null>(null)
const page = ref(1)
/** The words of the page in view, for whoever cannot see it. */
const words = ref('')
const failed = ref(false)
const holder = useTemplateRef<HTMLElement>('holder')
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')

const close = () => void pdf.value?.close()

async function open(address: string): Promise<void> {
  close()
  pdf.value = null
  failed.value = false
  page.value = 1
  const opened = await openPdf(address).catch(() => null)
  if (address !== props.address) return void opened?.close()
  pdf.value = opened
  failed.value = opened === null
}

async function draw(): Promise<void> {
  if (!pdf.value || !canvas.value) return
  const drawn = await pdf.value.draw(page.value, canvas.value, holder.value?.clientWidth ?? 0).catch(() => null)
  if (drawn === null) failed.value = true
  else if (drawn.page === page.value) words.value = drawn.words
}

watch(() => props.address, open, { immediate: true })
watch([pdf, page], draw, { flush: 'post' })
onBeforeUnmount(close)
</script>

<template>
  <p v-if="failed" class="second">It can’t be shown here. Save the file to read it.</p>
  <p v-else-if="!pdf" class="second" role="status">Reading …</p>
  <div v-else ref="holder" class="pdf" role="group" :aria-label="name">
    <span class="framed">
      <canvas ref="canvas" :aria-label="`Page ${page}`" role="img"></canvas>
      <slot name="over" :page="page" />
    </span>
    <p class="said-only">{{ words }}</p>
    <p v-if="pdf.pages > 1" class="turn">
      <button type="button" class="word-button" :disabled="page === 1" @click="page--">previous page</button>
      <span role="status">page {{ page }} of {{ pdf.pages }}</span>
      <button type="button" class="word-button" :disabled="page === pdf.pages" @click="page++">next page</button>
    </p>
  </div>
</template>

<style scoped>
.pdf {
  display: grid;
  gap: var(--space-3);
  width: min(100%, 720px);
}
.framed {
  position: relative;
  justify-self: start;
  display: grid;
}
canvas {
  max-width: 100%;
  background: #fff;
  border: var(--stroke-hair) solid var(--hair);
}
.turn {
  display: flex;
  gap: var(--space-5);
}
</style>
