// @vitest-environment jsdom
import { expect, it } from 'vitest'
import {
  faultsOf,
  freshQuestion,
  inShort,
  moveQuestion,
  onlyRight,
  scoreTimes,
  showAnswers,
  textOf,
  turnInto,
  usualRules,
} from './rows'

const question = (kind: string, more: Partial<ReturnType<typeof freshQuestion>> = {}) => ({
  ...freshQuestion(),
  html: '<p>Which?</p>',
  kind,
  ...more,
})
const answers = [
  { words: 'cirrus', match: 'high', isRight: true, reply: '' },
  { words: ' stratus\n low ', match: 'low', isRight: false, reply: 'Look\nlower.' },
  { words: '', match: 'none', isRight: false, reply: 'Nothing is said of nothing.' },
]

it('writes each kind as the server reads it', () => {
  const under = (kind: string, more = {}) =>
    textOf([question(kind, { answers, right: 'a / b', ...more })])
      .text.split('\n')
      .slice(1)
  expect(under('one')).toEqual(['+ cirrus', '- stratus low', '> Look lower.'])
  expect(under('many')).toEqual(['+ cirrus', '- stratus low', '> Look lower.', 'any number'])
  expect(under('order', { allOrNothing: true })).toEqual(['1. cirrus', '2. stratus low', 'all or nothing'])
  expect(under('match')).toEqual(['cirrus = high', 'stratus low = low', '= none'])
  expect(under('text', { wrong: 'c', slips: 2, accentsCount: false })).toEqual([
    'text: a / b',
    'not: c',
    'accents do not count',
    'slips: 2',
  ])
  expect(
    under('free', { points: 2, isExtra: true, faulty: 'left out', hint: 'Look\nup.', after: 'So it is.' }),
  ).toEqual(['read', 'points: 2', 'extra', 'faulty: left out', 'hint: Look up.', 'after: So it is.'])
})

it('says at which line each row begins, and so what is wrong with which', () => {
  const { text, begins } = textOf([
    question('truth', { right: 'false' }),
    question('free', { beginsPage: true, draw: 1, drawOf: 1, html: '<pre data-block="a1b2c3">a\nb</pre>' }),
  ])
  expect(text.split('\n')).toEqual([
    'formatted: <p>Which?</p>',
    'false',
    '',
    'page',
    '',
    '1 of the next 1',
    '',
    'formatted: <pre>a&#10;b</pre>',
    'read',
  ])
  expect(begins).toEqual([0, 3])
  const lines = text.split('\n').map((line, at) => ({ text: line, words: `at ${at}`, isFault: at === 5 }))
  expect(faultsOf(begins, lines)).toEqual(['', 'at 5'])
})

it('keeps what was written when a question becomes one of another kind', () => {
  const row = question('many', { answers: answers.map((answer) => ({ ...answer, isRight: true })) })
  turnInto(row, 'one')
  expect(row.answers.map(({ isRight }) => isRight)).toEqual([true, false, false])
  onlyRight(row, 1)
  turnInto(row, 'truth')
  expect([row.right, row.answers[1]!.words]).toEqual(['true', ' stratus\n low '])
})

it('takes a question to another place, or out', () => {
  const rows = ['a', 'b', 'c'].map((html) => question('free', { html }))
  moveQuestion(rows, 0, 2)
  moveQuestion(rows, 1, null)
  expect(rows.map(({ html }) => html)).toEqual(['b', 'a'])
})

it('draws from what is left of a pool', () => {
  const drawn = (at: number) => {
    const rows = [question('free'), question('free', { draw: 2, drawOf: 2 }), question('free', { html: 'last' })]
    moveQuestion(rows, at, null)
    return rows.map(({ draw, drawOf }) => [draw, drawOf])
  }
  for (const at of [1, 2])
    expect(drawn(at)).toEqual([
      [0, 0],
      [1, 1],
    ])
  expect(drawn(0)).toEqual([
    [2, 2],
    [0, 0],
  ])
})

it('says in a few words what is asked', () => {
  expect(inShort('<p>The <strong>sky</strong></p>')).toBe('The sky')
  expect(inShort('<p><img src="x" alt=""></p>')).toBe('a picture')
})

it('shows the score with the answers, or sooner where that was set', () => {
  const rules = usualRules()
  const set = (when: string, score = rules.scoreShown) => {
    rules.scoreShown = score
    showAnswers(rules, when)
    return [rules.shown, rules.scoreShown]
  }
  expect(set('after-due')).toEqual(['after-due', 'after-due'])
  expect(scoreTimes(rules).map(({ value }) => value)).toEqual(['at-once', 'after-due'])
  expect(set('never', 'at-once')).toEqual(['never', 'at-once'])
  expect(set('after-due')).toEqual(['after-due', 'at-once'])
  expect(set('at-once')).toEqual(['at-once', 'at-once'])
  expect(set('never')).toEqual(['never', 'never'])
})
