import { describe, expect, it } from 'vitest'
import { addLevel, copyOf, freshCriterion, freshRubric, lacking, unbound } from './rubricDraft'

describe('a rubric being written', () => {
  it('begins with four levels, and a further criterion has those of the one before without their words', () => {
    const rubric = freshRubric('Log')
    const [first] = rubric.criteria
    expect(first!.levels.map((level) => level.from)).toEqual([0, 1, 2, 3])
    first!.levels[1] = { id: 'l9', name: 'some', from: 1, to: 2, isRange: true, words: 'A few.' }
    addLevel(first!)
    expect(first!.levels[4]!.from).toBe(4)
    const next = freshCriterion(first)
    expect(next.levels[1]).toEqual({ id: '', name: 'some', from: 1, to: 2, isRange: true, words: '' })
    next.levels[1]!.name = 'other'
    expect(first!.levels[1]!.name).toBe('some')
  })

  it('says what is lacking before it can be saved', () => {
    const rubric = freshRubric('Log')
    expect(lacking(rubric)).toBe('Say of each criterion what is judged.')
    rubric.criteria[0]!.title = 'Seen'
    expect(lacking(rubric)).toBe('')
    rubric.criteria.push({ ...freshCriterion(), title: ' seen' })
    expect(lacking(rubric)).toBe('Two criteria have the same name.')
    rubric.criteria.pop()
    rubric.criteria[0]!.levels[0] = { ...rubric.criteria[0]!.levels[0]!, from: 3, to: 1, isRange: true }
    expect(lacking(rubric)).toBe('In a range, the lower number comes first.')
    rubric.name = ' '
    expect(lacking(rubric)).toBe('Give the rubric a name.')
  })

  it('is nobody else’s once it is taken over', () => {
    const rubric = copyOf(freshRubric('Log'))
    rubric.criteria[0]!.id = 'c7'
    rubric.criteria[0]!.levels[0]!.id = 'l7'
    const own = unbound(rubric)
    expect([own.criteria[0]!.id, own.criteria[0]!.levels[0]!.id]).toEqual(['', ''])
    expect(rubric.criteria[0]!.id).toBe('c7')
  })
})
