import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import { holds, markOf, proposed, step, termDraftOf, termOf } from './yearSheet'

const day = (date: string, state = 'class') => ({ date, words: date, state, label: null, marks: [] })
const month = (name: string, days: number, state?: string) => ({
  name,
  days: Array.from({ length: days }, (_, n) => day(`${name}-${String(n + 1).padStart(2, '0')}`, state)),
})
const months = [month('2026-10', 31), month('2026-11', 30, 'free')]
const calendar = {
  months,
  first: '2026-10-01',
  last: '2026-11-30',
  weekdays: ['mon', 'fri'],
  rotation: { kind: 'days', labels: ['1', '2'], closures: 'count' },
  periods: [{ name: 'P1', start: '08:00', end: '09:00' }],
  offDays: 'back',
  ownVersion: 3,
} as unknown as Schemas['CalendarAnswer']

describe('the year sheet', () => {
  it('goes by days and months, and stays where there is no further', () => {
    expect(step(months, '2026-10-31', 'ArrowRight')).toBe('2026-11-01')
    expect(step(months, '2026-10-31', 'ArrowDown')).toBe('2026-11-30')
    expect(step(months, '2026-11-15', 'ArrowUp')).toBe('2026-10-15')
    expect(step(months, '2026-10-01', 'ArrowLeft')).toBe('2026-10-01')
    expect(step(months, '2026-11-15', 'ArrowDown')).toBe('2026-11-15')
    expect(step(months, '2026-11-15', 'End')).toBe('2026-11-30')
  })

  it('takes days in either direction', () => {
    expect(holds({ anchor: '2026-10-05', head: '2026-10-02' }, '2026-10-03')).toBe(true)
    expect(holds({ anchor: '2026-10-05', head: '2026-10-02' }, '2026-10-06')).toBe(false)
  })

  it('proposes to close days, and to hold classes on a single one that has none', () => {
    expect(proposed(calendar, { anchor: '2026-10-05', head: '2026-10-02' })).toMatchObject({
      kind: 'closure',
      first: '2026-10-02',
      last: '2026-10-05',
    })
    expect(proposed(calendar, { anchor: '2026-11-07', head: '2026-11-07' }).kind).toBe('extra')
  })

  it('sends nothing that is not said whole', () => {
    const draft = proposed(calendar, { anchor: '2026-10-02', head: '2026-10-02' })
    expect(markOf(draft)).toBeNull()
    expect(markOf({ ...draft, name: ' Storm ' })).toMatchObject({ kind: 'closure', name: 'Storm', runs: null })
    expect(markOf({ ...draft, kind: 'special' })).toBeNull()
    expect(markOf({ ...draft, kind: 'special', runs: '2' })).toMatchObject({ runs: '2', periods: null })
    const period = { name: 'P1', start: '10:00', end: '09:00' }
    expect(markOf({ ...draft, kind: 'special', own: true, periods: [period] })).toBeNull()
  })

  it('gives a term back as it was read', () => {
    expect(termOf(termDraftOf(calendar), 3)).toEqual({
      first: '2026-10-01',
      last: '2026-11-30',
      weekdays: ['mon', 'fri'],
      rotation: { kind: 'days', labels: ['1', '2'], closures: 'count' },
      periods: [{ name: 'P1', start: '08:00', end: '09:00' }],
      offDays: 'back',
      version: 3,
    })
    expect(termOf({ ...termDraftOf(calendar), labels: ' , ' }, 3)).toBeNull()
  })
})
