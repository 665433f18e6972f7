import { describe, expect, it } from 'vitest'
import { deedsOf, eyesOf, pretendOf } from './pretend'

describe('a pretend student', () => {
  it('stands in the address and is read from there', () => {
    const pretend = {
      section: 3,
      facts: [
        { item: 12, what: 'score', value: '66.5' },
        { item: 14, what: 'given-back' },
      ],
    }
    expect(eyesOf(pretend)).toBe('pretend:3~12.score.66.5~14.given-back')
    expect(pretendOf(eyesOf(pretend))).toEqual(pretend)
    expect(pretendOf('section:3')).toEqual({ section: 3, facts: [] })
    expect(pretendOf('student:3')).toBeNull()
    expect(pretendOf(undefined)).toBeNull()
  })

  it('has done only what one does with an item of that kind', () => {
    expect(deedsOf('choice').map((deed) => deed.what)).toEqual(['picked'])
    expect(deedsOf('quiz').map((deed) => deed.what)).toEqual(['score'])
  })
})
