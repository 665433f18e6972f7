import { type Ref, onScopeDispose, ref, watch } from 'vue'

/** Follows a value once it has stood still for so many milliseconds. */
export function refDebounced<T>(source: Ref<T>, stillFor: number): Readonly<Ref<T>> {
  const settled = ref(source.value) as Ref<T>
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(source, (value) => {
    clearTimeout(timer)
    timer = setTimeout(() => (settled.value = value), stillFor)
  })
  onScopeDispose(() => clearTimeout(timer))
  return settled
}
