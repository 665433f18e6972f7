import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import { heightAt, lineOf, planOf, windowOf } from './paceLines'
import { standing } from './paceWords'

const run = (place: number, from: number | null, to: number | null, more: Partial<Schemas['PaceRun']> = {}) =>
  ({ place, from, to, plannedFrom: from, plannedTo: to, state: 'ahead', ...more }) as Schemas['PaceRun']

describe('a line of pace', () => {
  it('is solid as far as it was taught and goes on dashed from there', () => {
    const line = lineOf([run(0, 1, 2, { state: 'taught' }), run(1, 3, 4), run(2, 5, 6)])
    expect(line.map((stretch) => stretch.kind)).toEqual(['taught', 'forecast'])
    expect(line[1]!.points.map((point) => [point.at, point.up])).toEqual([
      [2, 1],
      [3, 1],
      [4, 2],
      [5, 2],
      [6, 3],
    ])
  })

  it('breaks where the section’s order is another, and leaves out what has no place', () => {
    expect(
      lineOf([run(0, 1, 2), run(5, 3, 4), run(1, 5, 6), run(2, null, null)]).map((stretch) => stretch.points.length),
    ).toEqual([2, 2, 2])
  })

  it('shows the plan only where it was moved', () => {
    expect(planOf([run(0, 1, 2), run(1, 3, 4)])).toEqual([])
    expect(planOf([run(0, 1, 2), run(1, 7, 8, { plannedFrom: 3, plannedTo: 4 })])[0]!.points[0]).toEqual({
      at: 3,
      up: 1,
    })
  })

  it('is read at a moment, between two lessons too', () => {
    const runs = [run(0, 1, 2), run(1, 4, 6)]
    expect(heightAt(runs, 0.5)).toBeNull()
    expect(heightAt(runs, 3)).toEqual({ at: 3, up: 1 })
    expect(heightAt(runs, 5)).toEqual({ at: 5, up: 1.5 })
  })

  it('is looked at by the term, the month or the week, never beyond the term', () => {
    expect(windowOf('term', 112, 38)).toEqual({ from: 0, to: 112 })
    expect(windowOf('month', 112, 38)).toEqual({ from: 28, to: 63 })
    expect(windowOf('week', 112, 111)).toEqual({ from: 105, to: 112 })
  })

  it('says who is behind, ahead, through or short', () => {
    const section = { atLesson: 'Fronts', behindBy: 2, behindLast: null, lacking: 0 } as Schemas['PaceSection']
    expect(standing(section, 'classes')).toBe('2 classes behind')
    expect(standing({ ...section, behindBy: -1, behindLast: 2, lacking: 3 }, 'classes')).toBe(
      '1 class ahead, 2 behind last time; will run 3 classes short',
    )
    expect(standing({ ...section, behindBy: 0, behindLast: -1 }, 'classes')).toBe('on plan, 1 class ahead of last time')
    expect(standing({ ...section, behindBy: 0, lacking: 3 }, 'classes')).toBe(
      'on plan so far; will run 3 classes short',
    )
    expect(standing({ ...section, atLesson: null, lacking: 2 }, 'classes')).toBe('over, 2 classes short')
    expect(standing({ ...section, lacking: 50 }, 'minutes')).toBe('2 classes behind; will run 50 minutes short')
    expect(standing({ ...section, atLesson: null }, 'classes')).toBe('through')
  })
})
