import { describe, expect, it } from 'vitest'
import { draftOf, gateOf, newLeaf, newSeveral, percentOfPoints, pointsOfPercent, usual } from './draft'

describe('a condition as it is written', () => {
  it.each([
    { item: 'i1', is: 'returned' },
    { item: 'i1', is: 'ticked', latch: false, whenLocked: 'hide' },
    { item: 'i1', scoreMin: 70 },
    { item: 'i1', scoreBelow: 70, using: 'latest' },
    { item: 'i1', scoreMin: 40, scoreBelow: 70, using: 'best' },
    { choice: 'i7', picked: 'o1' },
    { group: 'Support' },
    { taught: 'l3' },
    { from: { at: 'fixed', date: '2026-10-12', time: '08:40' } },
    { from: { at: 'lesson-end', of: 'l3', meetings: 2, clock: 'meeting-start' } },
    { from: { at: 'unit-start', of: 'u2', weeks: 1 } },
    { not: { item: 'i1', is: 'opened' } },
    { not: { all: [{ not: { item: 'i1', is: 'opened' } }] } },
    {
      atLeast: 2,
      of: [{ item: 'i1', is: 'opened' }, { not: { group: 'Support' } }, { any: [{ taught: 'l1' }, { taught: 'l2' }] }],
    },
    {
      all: [
        { item: 'i1', is: 'opened' },
        {
          any: [
            { item: 'i2', is: 'opened' },
            { choice: 'i7', picked: 'o1' },
          ],
        },
      ],
    },
  ])('is stored as it was read: %o', (gate) => {
    expect(gateOf(draftOf(gate))).toEqual(gate)
  })

  it('needs no word for all where there is only one', () => {
    expect(gateOf(draftOf({ all: [{ item: 'i1', is: 'opened' }] }))).toEqual({ item: 'i1', is: 'opened' })
    expect(gateOf(draftOf({ not: { not: { taught: 'l1' } } }))).toEqual({ not: { all: [{ not: { taught: 'l1' } }] } })
  })

  it('is none where nothing is asked, and not whole where something is not said', () => {
    const of = (...parts: Parameters<typeof newSeveral>[0] & object) =>
      gateOf({ root: newSeveral(parts), latch: null, whenLocked: null })
    expect(of()).toBeNull()
    expect(of(newLeaf())).toBeUndefined()
    expect(of({ ...newLeaf(), item: 'i1' }, newSeveral())).toBeUndefined()
    expect(of({ ...newLeaf(), item: 'i1', asked: 'score-between', min: 70, below: 70 })).toBeUndefined()
    expect(of({ ...newLeaf(), about: 'moment', lesson: 'l1' })).toBeUndefined()
  })

  it.each([
    [
      { item: 'i1', scoreMin: 70 },
      { stays: true, isTold: true },
    ],
    [
      { item: 'i1', scoreBelow: 70 },
      { stays: true, isTold: false },
    ],
    [{ group: 'Support' }, { stays: true, isTold: false }],
    [
      { choice: 'i7', picked: 'o1' },
      { stays: false, isTold: false },
    ],
    [{ all: [{ taught: 'l1' }, { not: { taught: 'l2' } }] }, { stays: false, isTold: false }],
  ])('has a usual way for what it asks: %o', (gate, expected) => {
    expect(usual(draftOf(gate))).toEqual(expected)
  })

  it('takes points for the percentage that whoever has just these points reaches', () => {
    expect(percentOfPoints(2, 3)).toBe(66.6666)
    expect(percentOfPoints(7, 10)).toBe(70)
    expect(pointsOfPercent(66.6666, 3)).toBe(2)
  })
})
