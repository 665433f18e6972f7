import { expect, test } from 'vitest'
import { type SchoolDays, spokenDate, typedDate, typedTime } from './typedDate'

// Thursday 8 October 2026; classes on Mondays, Wednesdays and Fridays of the two weeks around it.
const days: SchoolDays = {
  today: '2026-10-08',
  first: '2026-08-31',
  last: '2026-12-18',
  classDays: ['2026-10-05', '2026-10-07', '2026-10-09', '2026-10-12', '2026-10-14', '2026-10-16'],
}

test.each([
  ['22/10', '2026-10-22'],
  ['22.10.', '2026-10-22'],
  ['22 Oct', '2026-10-22'],
  ['Thu 22 Oct', '2026-10-22'],
  ['October 22nd', '2026-10-22'],
  ['thursday, 22 october 2027', '2027-10-22'],
  ['22/10/26', '2026-10-22'],
  ['2026-10-22', '2026-10-22'],
  ['22', '2026-10-22'],
  ['7', '2026-11-07'],
  ['thu', '2026-10-15'],
  ['fri', '2026-10-09'],
  ['today', '2026-10-08'],
  ['Tomorrow', '2026-10-09'],
  ['+3', '2026-10-11'],
  ['-2 days', '2026-10-06'],
  ['+2 weeks', '2026-10-22'],
  ['+3 classes', '2026-10-14'],
  ['-1 class', '2026-10-07'],
])('“%s” is %s', (text, date) => expect(typedDate(text, days)).toEqual({ date }))

test('what is counted is counted from the date that stands there', () => {
  expect(typedDate('+1 class', days, '2026-10-12')).toEqual({ date: '2026-10-14' })
  expect(typedDate('+1 week', days, '2026-10-12')).toEqual({ date: '2026-10-19' })
})

test('nothing written is no date, and what cannot be read says what can', () => {
  expect(typedDate('  ', days)).toEqual({ date: null })
  expect(typedDate('31/11', days)).toMatchObject({ problem: expect.stringContaining('no such day') })
  expect(typedDate('soon', days)).toMatchObject({ problem: expect.stringContaining('22 Oct') })
  expect(typedDate('22/10/1826', days)).toHaveProperty('problem')
  expect(typedDate('+9 classes', days)).toEqual({
    problem: 'Only 4 days with classes after Thu 8 Oct. Write a date instead.',
  })
})

test('a date outside the term is the one nearest to today', () => {
  expect(typedDate('3 Jan', { ...days, last: '2027-01-29' })).toEqual({ date: '2027-01-03' })
  expect(typedDate('1 July', days)).toEqual({ date: '2026-07-01' })
})

test('a date is written with its weekday, and with its year outside those of the term', () => {
  expect(spokenDate('2026-10-22', days)).toBe('Thu 22 Oct')
  expect(spokenDate('2027-10-22', days)).toBe('Fri 22 Oct 2027')
})

test.each([
  ['10:40', '10:40'],
  ['10.40', '10:40'],
  ['1040', '10:40'],
  ['9', '09:00'],
  ['2pm', '14:00'],
  ['12 am', '00:00'],
  ['', null],
])('“%s” is %s o’clock', (text, time) => expect(typedTime(text)).toEqual({ time }))

test('no time is made of what is none', () => {
  expect(typedTime('25:00')).toHaveProperty('problem')
  expect(typedTime('10:75')).toHaveProperty('problem')
  expect(typedTime('noonish')).toHaveProperty('problem')
})
