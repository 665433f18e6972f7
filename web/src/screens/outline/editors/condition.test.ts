import { describe, expect, it } from 'vitest'
import { conditionOf, gateOf } from './condition'

describe('a condition as a sentence', () => {
  it.each([
    { item: 'i1', is: 'returned' },
    { choice: 'i7', picked: 'o1' },
    {
      all: [
        { item: 'i1', is: 'opened' },
        { item: 'i2', is: 'submitted' },
      ],
    },
    {
      any: [
        { item: 'i1', is: 'opened' },
        { item: 'i2', is: 'returned' },
      ],
    },
  ])('is read and stored the same: %o', (gate) => {
    expect(gateOf(conditionOf(gate)!)).toEqual(gate)
  })

  it('is none where nothing is named', () => {
    expect(conditionOf(null)).toEqual({ join: 'all', parts: [] })
    expect(gateOf({ join: 'any', parts: [{ item: '', is: 'opened' }] })).toBeNull()
  })

  it.each([
    { not: { item: 'i1', is: 'opened' } },
    { item: 'i1', scoreMin: 70 },
    { item: 'i1', is: 'returned', latch: true },
    { all: [{ item: 'i1', is: 'opened' }, { any: [{ item: 'i2', is: 'opened' }] }] },
    { all: [{ item: 'i1', is: 'opened' }], any: [{ item: 'i2', is: 'opened' }] },
    { all: [] },
  ])('is left alone where it says more than the sentence can: %o', (gate) => {
    expect(conditionOf(gate)).toBeNull()
  })
})
