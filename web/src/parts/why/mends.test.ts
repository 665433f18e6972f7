import { describe, expect, it } from 'vitest'
import { placeOf } from './mends'

const mend = { words: 'set when it is due', screen: 'dates', section: 3, item: 12, field: 'due', row: null }

describe('the place that a mend names', () => {
  it('is the date in its section, and the moment in view stays', () => {
    expect(placeOf(mend, 2, { at: '2026-10-08' })).toEqual({
      name: 'dates',
      params: { edition: 2 },
      query: { at: '2026-10-08', section: 3, item: 12, field: 'due' },
    })
  })
  it('is the row in the outline', () => {
    expect(placeOf({ ...mend, screen: 'outline', row: 'item-12' }, 2, {})).toMatchObject({ query: { row: 'item-12' } })
  })
  it('is the student, in that section', () => {
    expect(placeOf({ ...mend, screen: 'one-student', row: 'student-9' }, 2, {})).toEqual({
      name: 'one-student',
      params: { edition: 2, student: 9 },
      query: { section: 3 },
    })
  })
  it('is the place among the conditions', () => {
    expect(placeOf({ ...mend, screen: 'conditions', row: 'i12' }, 2, {})).toEqual({
      name: 'conditions',
      params: { edition: 2 },
      query: { place: 'i12' },
    })
  })
  it('is nowhere where it is mended elsewhere', () => {
    expect(placeOf({ ...mend, screen: null }, 2, {})).toBeNull()
  })
})
