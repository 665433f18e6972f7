<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import { type Remark, boxBetween } from './remarks'

/** Over a picture or a page: the rectangles that remarks are about. Whoever may remark draws another one, or clicks a place. */
const props = defineProps<{
  file: number
  /** Which page of the file; null: it has none. */
  page: number | null
  remarks: Remark[]
  current?: number | null
  writable?: boolean
}>()
const emit = defineEmits<{ draw: [box: number[]] }>()

const layer = useTemplateRef<HTMLElement>('layer')
const boxes = computed(() =>
  props.remarks.flatMap(({ at }, n) =>
    at.file === props.file && at.page === props.page && at.box ? [{ n, box: at.box }] : [],
  ),
)
const place = (box: number[]) => ({
  left: `${box[0]! / 10}%`,
  top: `${box[1]! / 10}%`,
  width: `${box[2]! / 10}%`,
  height: `${box[3]! / 10}%`,
})
/** Where the drawing began and where it is, in thousandths. */
const drawing = ref<{ from: [number, number]; to: [number, number] } | null>(null)
const at = (event: PointerEvent): [number, number] => {
  const { left, top, width, height } = layer.value!.getBoundingClientRect()
  return [((event.clientX - left) / width) * 1000, ((event.clientY - top) / height) * 1000]
}
function begin(event: PointerEvent): void {
  if (!props.writable || event.button !== 0) return
  event.preventDefault()
  // A finger scrolls the page; where it only touches, that place is meant.
  if (event.pointerType !== 'touch') layer.value!.setPointerCapture(event.pointerId)
  drawing.value = { from: at(event), to: at(event) }
}
const move = (event: PointerEvent) => drawing.value && (drawing.value = { ...drawing.value, to: at(event) })
function end(): void {
  if (drawing.value) emit('draw', boxBetween(drawing.value.from, drawing.value.to))
  drawing.value = null
}
</script>

<template>
  <span
    ref="layer"
    class="layer"
    :class="{ writable }"
    @pointerdown="begin"
    @pointermove="move"
    @pointerup="end"
    @pointercancel="drawing = null"
  >
    <span
      v-for="one in boxes"
      :key="one.n"
      class="box"
      :class="{ current: one.n === current }"
      :data-remark="one.n"
      :style="place(one.box)"
    />
    <span v-if="drawing" class="box current" :style="place(boxBetween(drawing.from, drawing.to))" />
  </span>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.layer.writable {
  pointer-events: auto;
  cursor: crosshair;
}
.box {
  position: absolute;
  border: var(--stroke-hair) solid var(--accent);
  outline: var(--stroke-hair) solid var(--sheet);
}
.box.current {
  border-width: var(--stroke-strong);
}
</style>
