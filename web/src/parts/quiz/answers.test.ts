import { expect, test } from 'vitest'
import { unanswered } from './answers'

const question = (id: string) => ({
  id,
  kind: 'one',
  points: '1',
  isExtra: false,
  html: '',
  hint: null,
  options: [],
  rights: [],
  gaps: [],
  answer: null,
  page: 1,
})

test('false is an answer; blanks, nothing picked and nothing matched are none', () => {
  const questions = ['a', 'b', 'c', 'd', 'e', 'f'].map(question)
  expect(unanswered(questions, {})).toBe(6)
  expect(unanswered(questions, { a: false, b: ' ', c: [], d: {}, e: [null, ''], f: null })).toBe(5)
  expect(unanswered(questions, { a: 'x', b: ['y'], c: { l: 'r' }, d: [null, 'z'], e: true, f: '0' })).toBe(0)
})
