import { describe, expect, it } from 'vitest'
import { type Anchor, anchorOf, choiceOf } from './timing'

const anchors: Anchor[] = [
  { at: 'lesson-start' },
  { at: 'lesson-end' },
  { at: 'lesson-end', meetings: 2, clock: 'meeting-start' },
  { at: 'lesson-end', days: 7, clock: '18:00' },
  { at: 'fixed', date: '2026-10-12', time: '08:40' },
]

describe('when something opens or is due', () => {
  it.each(anchors)('is chosen and stored the same: %o', (anchor) => {
    const choice = choiceOf(anchor)
    expect(choice.kind).not.toBe('other')
    expect(anchorOf(choice)).toEqual(anchor)
  })

  it('is nothing where nothing is set', () => {
    expect(choiceOf(null).kind).toBe('none')
    expect(anchorOf(choiceOf(null))).toBeNull()
  })

  it.each<Anchor>([
    { at: 'lesson-end', meetings: 2, clock: 'meeting-end' },
    { at: 'lesson-end', days: 7, clock: 'meeting-start' },
    { at: 'lesson-end', meetings: 1, days: 2 },
    { at: 'own-due', days: 3 },
    { at: 'lesson-start', of: 'l4' },
  ])('stays as it is where the screen has no words for it: %o', (anchor) => {
    expect(choiceOf(anchor).kind).toBe('other')
    // Nothing is sent of it.
    expect(anchorOf(choiceOf(anchor))).toBeUndefined()
  })

  it('is not whole without its number, date or time', () => {
    const choice = { kind: 'none' as const, count: 1, date: '', time: '18:00' }
    expect(anchorOf({ ...choice, kind: 'on-date' })).toBeUndefined()
    expect(anchorOf({ ...choice, kind: 'classes-after', count: 0 })).toBeUndefined()
    expect(anchorOf({ ...choice, kind: 'days-after', time: '' })).toBeUndefined()
  })
})
