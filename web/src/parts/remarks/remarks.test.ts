// @vitest-environment jsdom
import { expect, test } from 'vitest'
import {
  type Remark,
  boxBetween,
  byPlace,
  chosenIn,
  offersOf,
  onText,
  placesOf,
  quoteOf,
  stepped,
  stretchesOf,
  trimmed,
} from './remarks'

const nothing = { from: null, to: null, entry: null, file: null, page: null, box: null }
const on = (from: number, to: number, entry: number | null = null): Remark => ({
  at: { ...nothing, from, to, entry },
  text: 'Why?',
})
const piece = {
  text: 'Grey sheet. Is it cirrus?\nNo ring.',
  entries: [{ on: '2026-10-05', text: 'Rain since four.' }],
  files: [{ id: 7, name: 'sky.jpg' }],
  links: [],
} as never

test('a text is cut where remarks begin and end, and loses nothing', () => {
  const cut = stretchesOf('abcdef', onText([on(1, 4), on(3, 5), on(0, 2, 0)], null))
  expect(cut).toEqual([
    { text: 'a', of: [] },
    { text: 'bc', of: [0] },
    { text: 'd', of: [0, 1] },
    { text: 'e', of: [1] },
    { text: 'f', of: [] },
  ])
  expect(stretchesOf('', [])).toEqual([])
  // What was written for a longer text cuts nothing off a shorter one.
  expect(
    stretchesOf('abc', [{ from: 1, to: 99, of: 0 }])
      .map((one) => one.text)
      .join(''),
  ).toBe('abc')
})

test('blanks around what is chosen are not part of it', () => {
  expect(trimmed('one two  three', 3, 9)).toEqual({ from: 4, to: 7 })
  expect(trimmed('one two', 3, 4)).toBeNull()
})

test('by keys one comes to each sentence, each entry and each file, and back', () => {
  expect(placesOf(piece).map((at) => quoteOf(piece, at))).toEqual([
    '“Grey sheet.”',
    '“Is it cirrus?”',
    '“No ring.”',
    '“Rain since four.”',
    'sky.jpg',
  ])
  const first = stepped(piece, [], null, 1)!
  expect(quoteOf(piece, first)).toBe('“Grey sheet.”')
  expect(quoteOf(piece, stepped(piece, [{ at: first, text: 'Yes.' }], null, 1)!)).toBe('“Is it cirrus?”')
  expect(stepped(piece, [], first, -1)).toBeNull()
  const last = placesOf(piece).at(-1)!
  expect(stepped(piece, [], last, 1)).toBeNull()
  expect(quoteOf(piece, stepped(piece, [], last, -1)!)).toBe('“Rain since four.”')
})

test('remarks stand in the order in which one reads', () => {
  const file: Remark = { at: { ...nothing, file: 7 }, text: 'Blue?' }
  const all = [file, on(0, 4, 0), on(12, 20), on(0, 5)]
  expect([...all].sort(byPlace(piece)).map((one) => all.indexOf(one))).toEqual([3, 2, 1, 0])
})

test('what is chosen on the page is a place in one text, counted through what is marked already', () => {
  document.body.innerHTML =
    '<div><p><span data-text=""><span>Grey </span><mark>sheet.</mark><span> Is it?</span></span></p><p>x</p></div>'
  const within = document.querySelector('div')!
  const [, marked, rest] = [...within.querySelectorAll('[data-text] > *')].map((one) => one.firstChild!)
  const range = document.createRange()
  range.setStart(marked!, 2)
  range.setEnd(rest!, 4)
  const selection = document.getSelection()!
  selection.addRange(range)
  expect(chosenIn(within, selection)).toEqual({ ...nothing, from: 7, to: 14 })
  range.setEnd(within.querySelectorAll('p')[1]!.firstChild!, 1)
  selection.removeAllRanges()
  selection.addRange(range)
  expect(chosenIn(within, selection)).toBeNull()
})

test('what was said before is offered by the words that are typed, and of this item with none', () => {
  const made = [
    { text: 'Write the time first.', here: true },
    { text: 'Say which instrument.', here: true },
    { text: 'Write more.', here: false },
  ]
  expect(offersOf(made, '')).toEqual(['Write the time first.', 'Say which instrument.'])
  expect(offersOf(made, 'wri')).toEqual(['Write the time first.', 'Write more.'])
  expect(offersOf(made, 'first WRITE')).toEqual(['Write the time first.'])
  expect(offersOf(made, 'Write more.')).toEqual([])
})

test('a rectangle is what is drawn, or some room around a place that is clicked, never beyond the edge', () => {
  expect(boxBetween([300, 400], [100, 900])).toEqual([100, 400, 200, 500])
  expect(boxBetween([500, 500], [504, 497])).toEqual([440, 440, 120, 120])
  expect(boxBetween([0, 1000], [0, 1000])).toEqual([0, 940, 60, 60])
  expect(boxBetween([-50, 0], [1300, 20])).toEqual([0, 0, 1000, 20])
  // On the very edge a thing still has an inside.
  const [left, top, width, height] = boxBetween([1000, 200], [1200, 400])
  expect([left + width <= 1000, top, width > 0, height]).toEqual([true, 200, true, 200])
})
