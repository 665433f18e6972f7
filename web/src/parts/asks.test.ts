import { describe, expect, it } from 'vitest'
import { accepted, askedOfYou, asksSentence } from './asks'

const asks = { way: 'work', text: 'welcome', links: 'welcome', files: [], others: true }
const photograph = { what: 'the photograph', kind: 'picture' }

describe('what an item asks for', () => {
  it('is one sentence for the team', () => {
    expect(asksSentence(null)).toBe('Nothing is handed in.')
    expect(asksSentence({ ...asks, together: ['Pair 1'] })).toMatch(/ Pair 1 hands in one piece\.$/)
    expect(asksSentence({ ...asks, together: ['Pair 1', 'Pair 2'] })).toMatch(
      / Pair 1 and Pair 2 each hand in one piece\.$/,
    )
    expect(asksSentence({ ...asks, way: 'tick' })).toBe('Nothing is handed in: students tick it off.')
    expect(asksSentence(asks)).toBe('Students hand in text, links or files.')
    expect(asksSentence({ ...asks, text: 'asked', links: 'no', files: [photograph] })).toBe(
      'Students hand in text and the photograph; they can add other files.',
    )
    expect(asksSentence({ ...asks, way: 'log', links: 'no', others: false })).toBe('Students hand in a log.')
  })

  it('tells a student what in particular, and nothing where anything will do', () => {
    expect(askedOfYou(asks)).toBe('')
    expect(askedOfYou({ ...asks, text: 'asked' })).toBe('')
    expect(
      askedOfYou({
        ...asks,
        text: 'asked',
        links: 'asked',
        files: [photograph, { what: 'the plan', kind: 'document' }],
      }),
    ).toBe('Hand in your text, a link, the photograph and the plan (a document).')
  })

  it('lets a chooser offer only what is taken', () => {
    expect(accepted(asks)).toBeUndefined()
    expect(accepted({ ...asks, others: false, files: [photograph] })).toBe('image/*')
    expect(accepted({ ...asks, others: false, files: [photograph, { what: 'anything', kind: null }] })).toBeUndefined()
  })
})
