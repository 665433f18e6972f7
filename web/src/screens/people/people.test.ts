import { expect, test } from 'vitest'
import { type PersonRow, actsOn, matching, mayBeOne, partOf, readPasted, standingOf } from './people'

const person = (more: Partial<PersonRow>): PersonRow => ({
  ...{ person: 1, name: 'Marit Oyelaran', email: 'marit@tern.example', office: false, state: 'active', lastIn: null },
  ...{ teacher: false },
  ...{ sessions: 0, courses: 0, teaches: 0, studentIn: [], oneself: false, joinedInto: null },
  ...more,
})

test.each([
  ['Marit Oyelaran <marit@tern.example>', 'Marit Oyelaran'],
  ['Marit Oyelaran, marit@tern.example', 'Marit Oyelaran'],
  ['marit@tern.example\tMarit\tOyelaran', 'Marit Oyelaran'],
  ['"Oyelaran, Marit"; marit@tern.example', 'Oyelaran Marit'],
])('“%s” is read as a name and an address', (text, name) =>
  expect(readPasted(text)).toEqual([{ line: 1, name, email: 'marit@tern.example' }]),
)

test('what cannot be read is said by its line, and the rest is read', () => {
  const text = 'Bo bo@tern.example\n\nNobody\nlone@tern.example\nBo Two BO@tern.example'
  expect(readPasted(text)).toEqual([
    { line: 1, name: 'Bo', email: 'bo@tern.example' },
    { line: 3, text: 'Nobody', wrong: 'there is no mail address' },
    { line: 4, text: 'lone@tern.example', wrong: 'there is no name' },
    { line: 5, text: 'Bo Two BO@tern.example', wrong: 'the address stands on line 1 already' },
  ])
})

test('who may be the same person is found by a name like theirs, or by what one writes, without those joined already', () => {
  const names = (words: string) =>
    mayBeOne(
      person({}),
      [
        person({}),
        person({ person: 2, name: 'Marit Holm', email: 'mh@tern.example' }),
        person({ person: 3, name: 'Marit O. Oyelaran', email: 'mo@tern.example' }),
        person({ person: 4, name: 'Bo Castellan', email: 'bo@tern.example' }),
        person({ person: 5, name: 'Marit Oyelaran', email: 'old@tern.example', joinedInto: 'Marit Oyelaran' }),
      ],
      words,
    ).map((one) => one.name)
  expect(names('')).toEqual(['Marit O. Oyelaran', 'Marit Holm'])
  expect(names('bo@')).toEqual(['Bo Castellan'])
})

test('people are found by every written word, of the kind that is looked for', () => {
  const all = [
    person({ person: 1, studentIn: ['9 Birch'] }),
    person({ person: 2, name: 'Bo', office: true, teaches: 2 }),
    person({ person: 3, name: 'Ada', state: 'invited' }),
    person({ person: 4, name: 'Uma', state: 'deactivated', courses: 1 }),
  ]
  const ids = (words: string, only: Parameters<typeof matching>[2] = '') =>
    matching(all, words, only).map((one) => one.person)
  expect(ids('birch oye')).toEqual([1])
  expect(ids('', 'office')).toEqual([2])
  expect(ids('', 'teach')).toEqual([2, 4])
  expect(ids('', 'students')).toEqual([1])
  expect(ids('', 'invited')).toEqual([3])
  expect(ids('bo', 'deactivated')).toEqual([])
})

test('what somebody is and how their account stands is said in words', () => {
  expect(partOf(person({ office: true, courses: 1, teaches: 2 }))).toBe(
    'school office; on the team of 1 course; teaches 2 sections',
  )
  expect(partOf(person({}))).toBe('nothing at present')
  expect(standingOf(person({ lastIn: 'Thu 8 Oct' }))).toBe('last signed in Thu 8 Oct')
  expect(standingOf(person({ state: 'invited' }))).toBe('invited, no password yet')
})

test('what can be done with an account follows from how it stands, and one’s own is left in the office', () => {
  const words = (more: Partial<PersonRow>) => actsOn(person(more), false).map((act) => act.words)
  expect(words({ state: 'deactivated', sessions: 3 })).toEqual(['reactivate'])
  expect(words({ state: 'invited' })).toEqual([
    'make a link to set a password',
    'make a teacher',
    'add to the office',
    'deactivate',
  ])
  expect(words({ sessions: 2, teacher: true, office: true })).toEqual([
    'make a link to set a new password',
    'no longer a teacher',
    'sign out everywhere (2)',
    'remove from the office',
    'deactivate',
  ])
  expect(words({ sessions: 2, oneself: true })).toEqual(['make a link to set a new password', 'make a teacher'])
  expect(
    actsOn(person({ state: 'invited' }), true)
      .map((act) => act.words)
      .slice(0, 2),
  ).toEqual(['mail a link to set a password', 'show a link to set a password'])
})
