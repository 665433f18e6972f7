// @vitest-environment jsdom
import { expect, test, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import { typedTime } from '../../foundation/dates/typedDate'
import { holdUnread, useTyped } from './useTyped'

const timeOf = (start: string) => {
  const value = ref<string | null>(start)
  const typed = useTyped(
    value,
    () => value.value ?? '',
    (text) => {
      const read = typedTime(text)
      return 'problem' in read ? read : { value: read.time ?? '' }
    },
  )
  return { value, ...typed }
}
const enter = () =>
  ({ preventDefault: vi.fn() }) as unknown as KeyboardEvent & { preventDefault: ReturnType<typeof vi.fn> }

test('what is typed is read when the field is left, and what cannot be read changes nothing and stays', () => {
  const field = timeOf('08:40')
  field.text.value = '1040'
  field.settle()
  expect([field.value.value, field.text.value, field.problem.value]).toEqual(['10:40', '10:40', ''])
  field.text.value = 'noonish'
  field.settle()
  expect([field.value.value, field.text.value]).toEqual(['10:40', 'noonish'])
  expect(field.problem.value).toContain('10:40')
})

test('the first Enter reads, the second does what the form is for', () => {
  const field = timeOf('08:40')
  field.text.value = '9'
  const [first, second] = [enter(), enter()]
  field.settleFirst(first)
  field.settleFirst(second)
  expect([first.preventDefault.mock.calls.length, second.preventDefault.mock.calls.length]).toEqual([1, 0])
})

test('what changes elsewhere stands in the field', async () => {
  const field = timeOf('08:40')
  field.text.value = 'half typed'
  field.value.value = '11:00'
  await nextTick()
  expect(field.text.value).toBe('11:00')
})

test('no form is sent with something in it that could not be read', () => {
  holdUnread()
  document.body.innerHTML = '<form><span class="unread"><input></span></form>'
  const form = document.querySelector('form')!
  const sent = vi.fn((event: Event) => event.preventDefault())
  form.addEventListener('submit', sent)
  const send = () => form.dispatchEvent(new Event('submit', { bubbles: true, cancelable: true }))
  send()
  expect(sent).not.toHaveBeenCalled()
  expect(document.activeElement).toBe(form.querySelector('input'))
  form.querySelector('span')!.className = ''
  send()
  expect(sent).toHaveBeenCalledOnce()
})
