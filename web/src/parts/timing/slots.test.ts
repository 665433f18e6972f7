import { describe, expect, it } from 'vitest'
import { another, draftsOf, slotsOf } from './slots'

const slots = [
  { day: 'mon', periods: ['P1'] },
  { day: 'A-thu', periods: ['P2', 'P3'], counts: 2, until: '2026-10-30' },
  { day: 'B-thu', start: '18:30', end: '20:00', from: '2026-11-02' },
]

describe('a timetable', () => {
  it('comes back from its fields as it was', () => expect(slotsOf(draftsOf(slots))).toEqual(slots))

  it.each([
    ['without a period', { periods: [] }],
    ['that ends before it begins', { own: true, start: '10:00', end: '09:00' }],
    ['that is over before it begins', { from: '2026-11-02', until: '2026-10-02' }],
    ['that counts for nothing', { counts: 0 }],
  ])('is not said whole with a time %s', (_, fault) =>
    expect(slotsOf([{ ...draftsOf(slots)[0]!, ...fault }])).toBeNull(),
  )

  it('proposes the first day and period', () => {
    expect(slotsOf([another([{ label: 'mon' }], [{ name: 'P1' }])])).toEqual([{ day: 'mon', periods: ['P1'] }])
  })
})
