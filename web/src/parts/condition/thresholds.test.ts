import { describe, expect, test } from 'vitest'
import { changesSide, isLatched, scoresIn, withThreshold } from './thresholds'

const gate = {
  all: [
    { item: 'a', is: 'submitted' },
    { any: [{ item: 'q', scoreMin: 70, scoreBelow: 90 }, { not: { item: 'r', scoreMin: 20, using: 'latest' } }] },
  ],
}

describe('thresholds in a condition', () => {
  test('every score that is asked for is found, and only those', () => {
    expect(scoresIn(gate)).toEqual([
      { path: ['all', 1, 'any', 0], item: 'q', min: 70, below: 90, latest: false },
      { path: ['all', 1, 'any', 1, 'not'], item: 'r', min: 20, below: null, latest: true },
    ])
    expect(scoresIn(null)).toEqual([])
  })

  test('one threshold is moved and nothing else', () => {
    const moved = withThreshold(gate, ['all', 1, 'any', 0], 'below', 80)
    expect(scoresIn(moved).map(({ min, below }) => [min, below])).toEqual([
      [70, 80],
      [20, null],
    ])
    expect(moved.all).toHaveLength(2)
    expect(scoresIn(gate)[0]!.below).toBe(90)
  })

  test('a condition stays met, unless it says otherwise or asks for what can come and go', () => {
    expect(isLatched({ item: 'q', scoreMin: 70 })).toBe(true)
    expect(isLatched({ item: 'q', scoreMin: 70, latch: false })).toBe(false)
    expect(isLatched(gate)).toBe(false)
    expect(isLatched({ choice: 'c', picked: 'x' })).toBe(false)
    expect(isLatched({ choice: 'c', picked: 'x', latch: true })).toBe(true)
  })

  test('who lies between changes side: exactly on the threshold is at least, and not below', () => {
    const scored = [80, 70, 69.9, 60].map((score) => ({ name: `${score}`, score }))
    const names = ({ lets, shuts }: ReturnType<typeof changesSide>) => [
      lets.map(({ name }) => name),
      shuts.map(({ name }) => name),
    ]
    expect(names(changesSide(scored, 'min', 70, 60))).toEqual([['69.9', '60'], []])
    expect(names(changesSide(scored, 'min', 70, 80))).toEqual([[], ['70']])
    expect(names(changesSide(scored, 'below', 70, 80))).toEqual([['70'], []])
    expect(names(changesSide(scored, 'below', 70, 60))).toEqual([[], ['69.9', '60']])
    expect(names(changesSide(scored, 'min', 70, 70))).toEqual([[], []])
  })
})
