import { expect, test } from 'vitest'
import { isWithTeacher, matching, soon, thisWeek, wholeCourse } from './wholeCourse'

const moment = (local: string, words: string) => ({ instant: `${local}Z`, local: `${local}:00`, weekday: 'thu', words })
const row = (code: string, unit: string, more: object = {}) => ({
  item: Number(code.replace(/\D/g, '')),
  code,
  title: `Item ${code}`,
  kind: 'task',
  state: 'open',
  progress: 'none',
  unit,
  unitId: unit.length,
  opens: null,
  due: null,
  dueRelative: null,
  opensRelative: null,
  canOpen: true,
  missing: [] as string[],
  beforeJoining: false,
  ...more,
})
const fog = row('3.08', 'Clouds', { state: 'locked', missing: ['feedback on 3.03 Cloud diary is given back'] })
const now = {
  course: 'Weather Watch',
  section: '9 Alder',
  moment: moment('2026-10-08T10:15', 'Thu 8 Oct, 10:15'),
  welcome: [],
  hasScores: false,
  classes: [moment('2026-10-09T10:40', 'Fri 9 Oct, 10:40')],
  now: [row('2.15', 'Air', { due: moment('2026-10-09T10:40', 'Fri 9 Oct, 10:40') })],
  next: [
    row('4.01', 'Fronts', { state: 'upcoming', opens: moment('2026-10-19T08:40', 'Mon 19 Oct, 08:40') }),
    row('4.02', 'Fronts', { state: 'upcoming', opens: moment('2026-11-19T08:40', 'Thu 19 Nov, 08:40') }),
  ],
  locked: [fog],
  back: [],
  done: [row('3.03', 'Clouds', { progress: 'with-teacher' }), row('2.9', 'Air', { progress: 'done' })],
}

test('the whole course stands unit by unit, in the order of its codes, with how much is done', () => {
  expect(
    wholeCourse(now).map((unit) => [unit.title, unit.stops.map((stop) => stop.code), unit.done, unit.from]),
  ).toEqual([
    ['Air', ['2.9', '2.15'], 1, null],
    ['Clouds', ['3.03', '3.08'], 1, null],
    ['Fronts', ['4.01', '4.02'], 0, 'Mon 19 Oct'],
  ])
})

test('a word finds an item by code, title or unit', () => {
  expect(matching(wholeCourse(now), 'clouds 3.08').flatMap((unit) => unit.stops.map((stop) => stop.code))).toEqual([
    '3.08',
  ])
  expect(matching(wholeCourse(now), 'zebra')).toEqual([])
})

test('what waits for feedback on work that is with the teacher waits for the teacher', () => {
  expect(isWithTeacher(fog, now)).toBe(true)
  expect(isWithTeacher(fog, { ...now, done: [] })).toBe(false)
})

test('this week has a line for each day with a class, an opening or a due date', () => {
  expect(thisWeek(now)).toEqual([{ day: 'Fri 9 Oct', words: ['10:40 class', '2.15 due 10:40'] }])
})

test('what comes within two weeks is not folded', () => {
  expect(soon(now.next, now.moment).map((one) => one.code)).toEqual(['4.01'])
})
