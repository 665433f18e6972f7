// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest'
import { forgetWriting } from '../../../foundation/session'
import { type QuestionDraft, dropDraft, keepDraft, keptDraft } from './questionDraft'

const draft: QuestionDraft = {
  from: 'Why?\ntrue',
  text: 'Why?\nread',
  rules: {
    limit: null,
    attempts: 1,
    using: 'best',
    shown: 'at-once',
    scoreShown: 'at-once',
    outOf: null,
    mixesQuestions: false,
    mixesOptions: false,
  },
  inRows: true,
}
beforeEach(() => localStorage.clear())

it('keeps what is being written until it is saved, dropped or somebody signs out', () => {
  keepDraft(1, 2, draft)
  expect(keptDraft(1, 2)).toEqual(draft)
  expect(keptDraft(1, 3)).toBeNull()
  dropDraft(1, 2)
  expect(keptDraft(1, 2)).toBeNull()
  keepDraft(1, 2, draft)
  forgetWriting()
  expect(localStorage).toHaveLength(0)
})

it('drops what cannot be read', () => {
  for (const kept of ['{', 'null', '{"text":1}']) {
    localStorage.setItem('polycline-writing-questions-1-2', kept)
    expect(keptDraft(1, 2)).toBeNull()
    expect(localStorage).toHaveLength(0)
  }
})
