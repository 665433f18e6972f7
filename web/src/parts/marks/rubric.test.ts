import { describe, expect, it } from 'vitest'
import { keyOf, levelName, mostOf, shortName, sumOf } from './rubric'

const level = (id: string, from: number, to = from, name = '') => ({
  id,
  name,
  from,
  to,
  isRange: to > from,
  words: '',
})
const rubric = {
  name: 'Log',
  criteria: [
    { id: 'c1', title: 'Seen', weight: 1.5, isOptional: false, levels: [level('l1', 0), level('l2', 3)] },
    {
      id: 'c2',
      title: 'Named',
      weight: 1,
      isOptional: false,
      levels: [level('l1', 0), level('l2', 1, 3), level('l3', 4)],
    },
    {
      id: 'c3',
      title: 'Drawn',
      weight: 0.1,
      isOptional: true,
      levels: [level('l1', 0, 0, 'no'), level('l2', 0.3, 0.3, 'yes')],
    },
  ],
}

describe('a rubric', () => {
  it('adds up what is chosen, and says how much is still to choose', () => {
    expect(mostOf(rubric)).toBe(8.5)
    expect(sumOf(rubric, [])).toEqual({ reached: 0, outOf: 8.5, left: 2 })
    expect(sumOf(rubric, [{ criterion: 'c1', level: 'l2', points: null }])).toEqual({
      reached: 4.5,
      outOf: 8.5,
      left: 1,
    })
    // The points of a range are still to be written.
    expect(sumOf(rubric, [{ criterion: 'c2', level: 'l2', points: null }]).left).toBe(2)
    expect(
      sumOf(rubric, [
        { criterion: 'c1', level: 'l2', points: null },
        { criterion: 'c2', level: 'l2', points: 1.25 },
        { criterion: 'c3', level: 'l2', points: null },
      ]),
    ).toEqual({ reached: 5.78, outOf: 8.53, left: 0 })
  })

  it('is marked by the digit that a level shows, or else by its place', () => {
    const [seen, named] = rubric.criteria
    expect(seen!.levels.map((one) => keyOf(seen!, one))).toEqual(['0', '3'])
    expect(named!.levels.map((one) => keyOf(named!, one))).toEqual(['1', '2', '3'])
  })

  it('names a level by its points where it has no name', () => {
    const [, named, drawn] = rubric.criteria
    expect(named!.levels.map(levelName)).toEqual(['0 points', '1–3 points', '4 points'])
    expect(drawn!.levels.map(shortName)).toEqual(['no (0)', 'yes (0.3)'])
  })
})
