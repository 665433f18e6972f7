import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import { changeOf, comingFirst } from './classes'

const monday = { ordinal: 3, date: '2026-10-12', start: '08:40', end: '09:30', isOver: false } as Schemas['PaceClass']
const times = { date: '2026-10-12', start: '08:40', end: '09:30' }

describe('a change of a class', () => {
  it('names the class by its date and start', () => {
    expect(changeOf({ what: 'move', of: monday }, { ...times, date: '2026-10-13' })).toEqual({
      move: { date: '2026-10-12', start: '08:40', to: { date: '2026-10-13', start: '08:40', end: '09:30' } },
    })
    expect(changeOf({ what: 'add', of: null }, times)).toEqual({ add: times })
  })

  it('is none while it is not said whole, or changes nothing', () => {
    expect(changeOf({ what: 'move', of: monday }, times)).toBeNull()
    expect(changeOf({ what: 'add', of: null }, { ...times, end: '08:40' })).toBeNull()
    expect(changeOf({ what: 'add', of: null }, { ...times, date: '' })).toBeNull()
  })
})

it('shows what is over only when asked', () => {
  const classes = [{ ...monday, isOver: true }, monday]
  expect([comingFirst(classes, false).length, comingFirst(classes, true).length]).toEqual([1, 2])
})
