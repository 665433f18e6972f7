import { useLocalStorage } from '@vueuse/core'
import { type Ref, computed, onScopeDispose, reactive, ref } from 'vue'
import { useAsked } from './commands/asking'

/** A key of the screen in view. */
export interface ScreenKey {
  /** As `KeyboardEvent.key`; `Ctrl+` before it where that is held, `Shift+` before an arrow. */
  key: string
  /** What it does, for the list of keys; empty: it is listed with another. */
  words: string
  run?: () => void
}

const KEPT = 'polycline-letter-keys'
const held = reactive(new Set<Ref<ScreenKey[]>>())
const kept = useLocalStorage(KEPT, 'on', { writeDefaults: false })
const letters = computed(() => kept.value !== 'off')

/** A field has every key but Escape to itself: letters, arrows, Enter, Space, and what is held with Ctrl. */
const isField = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    /^(input|textarea|select)$/i.test(target.tagName) ||
    /^(textbox|combobox|listbox|spinbutton|slider|menuitem)$/.test(target.getAttribute('role') ?? ''))

/** Enter and Space press what has the focus. */
const isPressed = (event: KeyboardEvent) =>
  /^(Enter| )$/.test(event.key) && event.target instanceof HTMLElement && !!event.target.closest('button, a, summary')

const asked = useAsked()

function press(event: KeyboardEvent): void {
  if (event.altKey || event.metaKey || event.defaultPrevented || asked.value) return
  const shift = event.shiftKey && event.key.startsWith('Arrow') ? 'Shift+' : ''
  const key =
    (event.ctrlKey ? 'Ctrl+' : shift) + (event.ctrlKey && event.shiftKey ? event.key.toLowerCase() : event.key)
  if (event.key !== 'Escape' && (isField(event.target) || isPressed(event))) return
  // Single letters can be switched off.
  if (!event.ctrlKey && event.key.length === 1 && !letters.value) return
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
    keys: computed(() => [...held].flatMap((list) => list.value).filter((known) => known.words)),
    letters,
    setLetters(on: boolean): void {
      kept.value = on ? 'on' : 'off'
    },
  }
}
