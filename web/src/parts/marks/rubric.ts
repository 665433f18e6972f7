import type { Schemas } from '../../foundation/api/client'

type Rubric = Schemas['RubricForm']
type Criterion = Schemas['CriterionForm']
type Level = Schemas['RubricLevelForm']
type Given = Schemas['LevelGiven']

/** A sum of weighted points: at most four decimals, without zeros at its end. */
const exact = (sum: number) => Math.round(sum * 10_000) / 10_000

/** The points of a level: `2`, or `1–3`. */
export const pointsOf = (level: Level) => (level.isRange ? `${level.from}–${level.to}` : `${level.from}`)

/** What a level is called: its name with its points, or these alone. */
export const levelName = (level: Level) =>
  level.name
    ? `${level.name} (${pointsOf(level)})`
    : `${pointsOf(level)} ${pointsOf(level) === '1' ? 'point' : 'points'}`

const most = (criterion: Criterion) =>
  Math.max(...criterion.levels.map((level) => (level.isRange ? level.to : level.from)))

/** The same where points are plain from what stands around: a number alone. */
export const shortName = (level: Level) => (level.name ? `${level.name} (${pointsOf(level)})` : pointsOf(level))

/** How many points there are to reach, without what is optional. */
export const mostOf = (rubric: Rubric) =>
  exact(rubric.criteria.reduce((sum, one) => sum + (one.isOptional ? 0 : one.weight * most(one)), 0))

/** What was chosen so far, of what could be; and what is still to be chosen. */
export function sumOf(rubric: Rubric, given: readonly Given[]) {
  const chosen = new Map(given.map((one) => [one.criterion, one]))
  let [reached, outOf, left] = [0, 0, 0]
  for (const criterion of rubric.criteria) {
    const one = chosen.get(criterion.id)
    const level = criterion.levels.find((known) => known.id === one?.level)
    const points = level?.isRange ? (one?.points ?? null) : (level?.from ?? null)
    if (points === null && !criterion.isOptional) left++
    if (points === null && criterion.isOptional) continue
    reached += criterion.weight * (points ?? 0)
    outOf += criterion.weight * most(criterion)
  }
  return { reached: exact(reached), outOf: exact(outOf), left }
}

/** The key that chooses a level: its points where each level is one digit of its own, else its place. */
export function keyOf(criterion: Criterion, level: Level): string {
  const digits = criterion.levels.map((one) => `${one.from}`)
  const areKeys =
    criterion.levels.every((one) => !one.isRange && /^\d$/.test(`${one.from}`)) &&
    new Set(digits).size === digits.length
  return areKeys ? `${level.from}` : `${(criterion.levels.indexOf(level) + 1) % 10}`
}

/** What is said of a criterion beside its name. */
export const besides = (criterion: Criterion) =>
  [criterion.weight === 1 ? '' : `counts ${criterion.weight} times`, criterion.isOptional ? 'optional' : '']
    .filter(Boolean)
    .join(', ')
