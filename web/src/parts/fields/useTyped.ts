import { type Ref, ref, watch } from 'vue'

/**
 * A text that is typed freely and read for a value when the field is left or Enter is pressed. What cannot be read stays
 * there with what is wrong about it, and the value stays as it was: `holdUnread` lets no form go off with it.
 * @param value What is meant by the text; empty where nothing is written.
 * @param spoken How the value is written.
 * @param read What a text means, or what is wrong with it.
 */
export function useTyped(
  value: Ref<string | null>,
  spoken: () => string,
  read: (text: string) => { value: string } | { problem: string },
) {
  const text = ref(spoken())
  const problem = ref('')
  /** Writes what is meant, in place of what was typed. */
  function rewrite(): void {
    text.value = spoken()
    problem.value = ''
  }
  // What changes from elsewhere is written anew.
  watch(spoken, rewrite)

  function settle(): void {
    problem.value = ''
    if (text.value === spoken()) return
    const typed = read(text.value)
    if ('problem' in typed) return void (problem.value = typed.problem)
    value.value = typed.value
    text.value = spoken()
  }

  /** Enter reads what was typed before it does anything else: what comes of it is seen first. */
  function settleFirst(event: KeyboardEvent): void {
    const before = text.value
    settle()
    if (text.value !== before || problem.value) event.preventDefault()
  }

  return { text, problem, settle, settleFirst, rewrite }
}

/** Keeps every form from being sent while one of its fields holds something that could not be read, and goes there. */
export function holdUnread(): void {
  addEventListener(
    'submit',
    (event) => {
      const wrong = (event.target as Element).querySelector<HTMLElement>('.unread input')
      if (!wrong) return
      event.preventDefault()
      event.stopImmediatePropagation()
      wrong.focus()
    },
    { capture: true },
  )
}
