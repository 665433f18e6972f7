import type { Schemas } from '../../foundation/api/client'

type Run = Schemas['PaceRun']

/** A point of a line: days from the ribbon's origin, lessons from the bottom. */
export interface Point {
  at: number
  up: number
}

/** A stretch of a section's line, in one manner. */
export interface Stretch {
  kind: 'taught' | 'forecast' | 'planned' | 'last'
  points: Point[]
}

const from = (run: Run): Point => ({ at: run.from!, up: run.place })
const to = (run: Run): Point => ({ at: run.to!, up: run.place + 1 })

/** The line of a section: solid as far as it was taught, dashed as it will go; broken where its order is another. */
export function lineOf(runs: Run[]): Stretch[] {
  const stretches: Stretch[] = []
  let before: Run | null = null
  for (const run of runs) {
    if (run.from === null || run.to === null) continue
    const kind = run.state === 'taught' ? 'taught' : 'forecast'
    const follows = before !== null && before.place + 1 === run.place
    const last = stretches.at(-1)
    if (follows && last && last.kind === kind) last.points.push(from(run), to(run))
    else stretches.push({ kind, points: follows ? [to(before!), from(run), to(run)] : [from(run), to(run)] })
    before = run
  }
  return stretches
}

/** As it was planned, where what was really taught has moved it. */
export function planOf(runs: Run[]): Stretch[] {
  const moved = runs.filter((run) => run.plannedFrom !== null && run.plannedTo !== null && run.plannedFrom !== run.from)
  return lineOf(moved.map((run) => ({ ...run, from: run.plannedFrom, to: run.plannedTo, state: 'ahead' }))).map(
    (stretch) => ({ ...stretch, kind: 'planned' }),
  )
}

/** As it would go if it went as in the edition before, class by class. */
export const lastOf = (runs: Run[]): Stretch[] =>
  lineOf(runs.map((run) => ({ ...run, from: run.lastFrom, to: run.lastTo, state: 'ahead' }))).map((stretch) => ({
    ...stretch,
    kind: 'last',
  }))

/** How high a section stands at a moment. */
export function heightAt(runs: Run[], moment: number): Point | null {
  let height: number | null = null
  for (const run of runs) {
    if (run.from === null || run.to === null || run.from > moment) continue
    const part = run.to <= run.from || moment >= run.to ? 1 : (moment - run.from) / (run.to - run.from)
    height = Math.max(height ?? 0, run.place + part)
  }
  return height === null ? null : { at: moment, up: height }
}

/** The part of the term in view: all of it, a month or a week around the moment, in days from the origin. */
export function windowOf(zoom: 'term' | 'month' | 'week', days: number, moment: number): { from: number; to: number } {
  const wide = { term: days, month: 35, week: 7 }[zoom]
  if (wide >= days) return { from: 0, to: days }
  // Whole weeks, the moment's a third from the left.
  const start = Math.floor(moment / 7) * 7 - (zoom === 'month' ? 7 : 0)
  const begin = Math.min(Math.max(0, start), days - wide)
  return { from: begin, to: begin + wide }
}
