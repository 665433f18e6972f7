import { type Ref, nextTick, onMounted, watch } from 'vue'

/** Brings what was just opened into view, with as little moving as may be; and again once it has grown to its whole. */
export function useInView(panel: Readonly<Ref<HTMLElement | null>>, whole?: Ref<unknown>): void {
  const show = () => panel.value?.scrollIntoView({ block: 'nearest' })
  onMounted(show)
  if (!whole) return
  const stop = watch(whole, async (now) => {
    if (!now) return
    stop()
    await nextTick()
    show()
  })
}
