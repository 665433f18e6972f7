import { type Ref, computed, onScopeDispose, reactive, ref } from 'vue'

/** A key of the screen in view. */
export interface ScreenKey {
  /** As `KeyboardEvent.key`; `Ctrl+` before it where that is held. */
  key: string
  /** What it does, for the list of keys. */
  words: string
  run?: () => void
}

const KEPT = 'polycline-letter-keys'
const held = reactive(new Set<Ref<ScreenKey[]>>())
const letters = ref(localStorage.getItem(KEPT) !== 'off')

const isWriting = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName))

function press(event: KeyboardEvent): void {
  if (event.altKey || event.metaKey || event.defaultPrevented) return
  const key = (event.ctrlKey ? 'Ctrl+' : '') + event.key
  // A single letter never fires while one writes, and can be switched off.
  if (!event.ctrlKey && event.key.length === 1 && (!letters.value || isWriting(event.target))) return
  if (event.ctrlKey && isWriting(event.target)) return
  const found = [...held].flatMap((list) => list.value).find((known) => known.key === key && known.run)
  if (!found?.run) return
  event.preventDefault()
  found.run()
}

addEventListener('keydown', press)

/** Puts up the keys of a screen for as long as it is in view. */
export function useScreenKeys(list: ScreenKey[]): void {
  const own = ref(list)
  held.add(own)
  onScopeDispose(() => held.delete(own))
}

/** Every key there is now, and the switch for the single letters. */
export function useKeyList() {
  return {
    keys: computed(() => [...held].flatMap((list) => list.value)),
    letters,
    setLetters(on: boolean): void {
      letters.value = on
      localStorage.setItem(KEPT, on ? 'on' : 'off')
    },
  }
}
