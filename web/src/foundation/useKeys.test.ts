// @vitest-environment jsdom
import { effectScope } from 'vue'
import { expect, test } from 'vitest'
import { useScreenKeys } from './useKeys'

const fired: string[] = []
effectScope().run(() =>
  useScreenKeys(
    ['ArrowDown', 'Enter', ' ', 'Delete', 'h', '?', 'Ctrl+z', 'Escape'].map((key) => ({
      key,
      words: key,
      run: () => void fired.push(key),
    })),
  ),
)

function press(element: Element, key: string, ctrlKey = false): string[] {
  fired.length = 0
  element.dispatchEvent(new KeyboardEvent('keydown', { key, ctrlKey, bubbles: true, cancelable: true }))
  return [...fired]
}

function put(html: string): Element {
  document.body.innerHTML = html
  return document.body.firstElementChild!
}

test.each([
  '<input>',
  '<input type="number">',
  '<input type="date">',
  '<input type="radio">',
  '<select><option>a</option></select>',
  '<textarea></textarea>',
  '<div role="textbox" tabindex="0"></div>',
  '<div role="slider" tabindex="0"></div>',
])('in %s every key belongs to the field, save Escape', (html) => {
  const field = put(html)
  const all = ['ArrowDown', 'Enter', ' ', 'Delete', 'h', '?'].flatMap((key) => press(field, key))
  expect([...all, ...press(field, 'z', true)]).toEqual([])
  expect(press(field, 'Escape')).toEqual(['Escape'])
})

test('on a button Enter and Space press it, and other keys are the screen’s', () => {
  const button = put('<button>do</button>')
  expect([...press(button, 'Enter'), ...press(button, ' ')]).toEqual([])
  expect([...press(button, 'ArrowDown'), ...press(button, 'h'), ...press(button, 'z', true)]).toEqual([
    'ArrowDown',
    'h',
    'Ctrl+z',
  ])
})
