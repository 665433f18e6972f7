import { describe, expect, it } from 'vitest'
import { gridOf, inShort, isIn, timesOf, toggled } from './periodGrid'
import { type SlotDraft, draftsOf, slotsOf } from './slots'

const weekly = ['mon', 'tue', 'wed'].map((label) => ({ label, words: label }))
const twoWeeks = ['mon', 'A-mon', 'B-mon', 'tue', 'A-tue', 'B-tue'].map((label) => ({ label, words: label }))
const sixDays = ['1', '2', '3', '4', '5', '6'].map((label) => ({ label, words: `Day ${label}` }))
const periods = ['P1', 'P2', 'P3', 'P4']
const press = (days: typeof weekly, drafts: SlotDraft[], ...pressed: [string, string][]) =>
  pressed.reduce((all, [label, period]) => toggled(all, gridOf(days).rows, periods, label, period), drafts)

describe('the grid of periods', () => {
  it('has a row for each day, and weeks side by side', () => {
    expect(gridOf(weekly).rows.map((row) => row.labels)).toEqual([['mon'], ['tue'], ['wed']])
    expect(gridOf(twoWeeks)).toEqual({
      weeks: ['A', 'B'],
      rows: [
        { words: 'Mon', labels: ['A-mon', 'B-mon'] },
        { words: 'Tue', labels: ['A-tue', 'B-tue'] },
      ],
    })
    expect(gridOf(sixDays).rows[5]).toEqual({ words: 'Day 6', labels: ['6'] })
  })

  it('makes one class of periods that follow each other, and two of what lies apart', () => {
    const drafts = press(weekly, [], ['mon', 'P3'], ['mon', 'P2'], ['wed', 'P4'], ['wed', 'P1'])
    expect(slotsOf(drafts)).toEqual([
      { day: 'mon', periods: ['P2', 'P3'] },
      { day: 'wed', periods: ['P1'] },
      { day: 'wed', periods: ['P4'] },
    ])
    expect(slotsOf(press(weekly, drafts, ['mon', 'P2']))![0]).toEqual({ day: 'mon', periods: ['P3'] })
  })

  it('says once what is the same in every week, and apart what is not', () => {
    const both = press(twoWeeks, [], ['A-mon', 'P1'], ['B-mon', 'P1'])
    expect(slotsOf(both)).toEqual([{ day: 'mon', periods: ['P1'] }])
    expect(isIn(both, 'B-mon', 'P1')).toBe(true)
    expect(slotsOf(press(twoWeeks, both, ['B-mon', 'P1']))).toEqual([{ day: 'A-mon', periods: ['P1'] }])
  })

  it('leaves alone what it does not show', () => {
    const others = [
      { day: 'mon', periods: ['P1'], counts: 2 },
      { day: 'tue', start: '18:30', end: '20:00' },
      { day: 'wed', periods: ['P2'], until: '2026-10-30' },
    ]
    const drafts = press(weekly, draftsOf(others), ['mon', 'P1'], ['mon', 'P1'])
    expect(slotsOf(drafts)).toEqual(others)
  })
})

describe('times in words', () => {
  it.each([
    ['mon p1', 'Mon P1'],
    ['Monday P1, wed P3–P4', 'Mon P1, Wed P3–P4'],
    ['tue p2-p3; mon P4', 'Tue P2–P3, Mon P4'],
  ])('are read: %s', (text, short) => expect(inShort(timesOf(text, weekly, periods)!, weekly)).toBe(short))

  it('are read with the week', () =>
    expect(inShort(timesOf('A-mon p1, B tue P2', twoWeeks, periods)!, twoWeeks)).toBe('A Mon P1, B Tue P2'))

  it('are read by the number of the day', () =>
    expect(slotsOf(timesOf('3 P1, 6 P2', sixDays, periods)!)).toEqual([
      { day: '3', periods: ['P1'] },
      { day: '6', periods: ['P2'] },
    ]))

  it.each([['mon'], ['mon P9'], ['sat P1'], ['mon P3-P1'], ['geography'], ['']])('are none: %s', (text) =>
    expect(timesOf(text, weekly, periods)).toBeNull(),
  )
})
