import { expect, test } from 'vitest'
import { momentPlusDays, mondayOf, plusDays } from './calendarDays'

test('days are counted over months and years, and over the night the clocks change', () => {
  expect(plusDays('2026-10-24', 1)).toBe('2026-10-25')
  expect(plusDays('2026-10-25', 1)).toBe('2026-10-26')
  expect(plusDays('2027-01-01', -1)).toBe('2026-12-31')
  expect(momentPlusDays('2026-10-08T10:15:00', 7)).toBe('2026-10-15T10:15')
})

test('a week begins on its Monday', () => {
  expect(['2026-10-05', '2026-10-08', '2026-10-11'].map(mondayOf)).toEqual(['2026-10-05', '2026-10-05', '2026-10-05'])
})
