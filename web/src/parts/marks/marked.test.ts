import { expect, test } from 'vitest'
import { markedSentence } from './marked'

test('how it is marked is one sentence', () => {
  expect(markedSentence(null)).toBe('Students get feedback on it in words only.')
  expect(markedSentence({ as: 'points', outOf: 1, levels: [] })).toBe('It is marked out of 1 point.')
  expect(markedSentence({ as: 'percent', outOf: 20, levels: [] })).toBe('It is marked in per cent, and counts as 20.')
  expect(
    markedSentence({
      as: 'scale',
      outOf: 100,
      levels: [
        { name: 'not yet', percent: null },
        { name: 'nearly there', percent: null },
        { name: 'there', percent: null },
      ],
    }),
  ).toBe('It is marked as not yet, nearly there or there.')
})
