import type { Schemas } from '../../../foundation/api/client'

type Rubric = Schemas['RubricForm']
type Criterion = Schemas['CriterionForm']

export const MOST_CRITERIA = 20
export const MOST_LEVELS = 10

/** A rubric to begin with. */
export const freshRubric = (name: string): Rubric => ({ name, criteria: [freshCriterion()] })

/** Another criterion, with the levels of the one before, without their words. */
export function freshCriterion(before?: Criterion): Criterion {
  const levels =
    before?.levels.map((level) => ({ ...level, id: '', words: '' })) ?? [0, 1, 2, 3].map((points) => freshLevel(points))
  return { id: '', title: '', weight: 1, isOptional: false, levels }
}

const freshLevel = (points: number) => ({ id: '', name: '', from: points, to: points, isRange: false, words: '' })

/** One level more, a point above the last. */
export function addLevel(criterion: Criterion): void {
  const last = criterion.levels[criterion.levels.length - 1]!
  const points = (last.isRange ? last.to : last.from) + 1
  criterion.levels.push(freshLevel(Math.min(points, 10_000)))
}

/** The same without what ties it to where it came from: it becomes a rubric of its own. */
export const unbound = (rubric: Rubric): Rubric => ({
  ...rubric,
  criteria: rubric.criteria.map((criterion) => ({
    ...criterion,
    id: '',
    levels: criterion.levels.map((level) => ({ ...level, id: '' })),
  })),
})

/** A copy that can be written on. */
export const copyOf = (rubric: Rubric): Rubric => JSON.parse(JSON.stringify(rubric)) as Rubric

/** What is still missing before it can be saved; empty: nothing. */
export function lacking(rubric: Rubric): string {
  if (!rubric.name.trim()) return 'Give the rubric a name.'
  if (rubric.criteria.some((one) => !one.title.trim())) return 'Say of each criterion what is judged.'
  const titles = rubric.criteria.map((one) => one.title.trim().toUpperCase())
  if (new Set(titles).size < titles.length) return 'Two criteria have the same name.'
  const levels = rubric.criteria.flatMap((one) => one.levels)
  if (levels.some((level) => level.from === null || level.to === null)) return 'Give every level its points.'
  return levels.some((level) => level.isRange && level.from > level.to)
    ? 'In a range, the lower number comes first.'
    : ''
}
