import { type Ref, type ShallowRef, onScopeDispose, shallowRef, watch } from 'vue'

/** Follows a value once it has stood still for so many milliseconds. */
export function refDebounced<T>(source: Ref<T>, stillFor: number): Readonly<ShallowRef<T>> {
  const settled = shallowRef(source.value)
  let timer: ReturnType<typeof setTimeout> | undefined
  watch(source, (value) => {
    clearTimeout(timer)
    timer = setTimeout(() => (settled.value = value), stillFor)
  })
  onScopeDispose(() => clearTimeout(timer))
  return settled
}
