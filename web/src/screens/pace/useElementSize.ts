import { type Ref, onScopeDispose, ref, watch } from 'vue'

/** How large an element is, in px, as it changes. */
export function useElementSize(element: Ref<HTMLElement | null>) {
  const width = ref(0)
  const height = ref(0)
  const observer = new ResizeObserver(([entry]) => {
    width.value = Math.floor(entry!.contentRect.width)
    height.value = Math.floor(entry!.contentRect.height)
  })
  watch(element, (now, before) => {
    if (before) observer.unobserve(before)
    if (now) observer.observe(now)
  })
  onScopeDispose(() => observer.disconnect())
  return { width, height }
}
