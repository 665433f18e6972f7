import { expect, test } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import { plainLevels } from '../../foundation/levels'
import { findsOf, found } from './finding'

const item = (id: number, code: string, title: string) => ({ id, code, title, kind: 'task' })
const outline = {
  sections: [{ id: 1, name: '9 Alder', letter: 'A', students: 24 }],
  units: [
    {
      id: 5,
      number: 3,
      title: 'Clouds by name',
      items: [item(9, '3.20', 'What we know now')],
      lessons: [
        {
          id: 7,
          title: 'Naming what we see',
          items: [item(1, '3.03', 'Cloud diary'), item(2, '3.13', 'Clouds again')],
        },
      ],
    },
  ],
} as unknown as Schemas['OutlineAnswer']
const people = {
  sections: [{ section: 1, name: '9 Alder', students: [{ id: 31, name: 'Imke Osei' }] }],
} as unknown as Schemas['LensAnswer']
const all = findsOf(2, plainLevels, outline, people)
const titles = (written: string) => found(all, written).shown.map((one) => one.title)

test('an item is found by its code, by a word of it, and by where it is', () => {
  expect(titles('3.03')[0]).toBe('Cloud diary')
  expect(titles('3.1')).toEqual(['Clouds again'])
  expect(titles('diary')).toEqual(['Cloud diary'])
  expect(titles('naming diary')).toEqual(['Cloud diary'])
  expect(found(all, 'diary').shown[0]!.to).toEqual({
    name: 'outline',
    params: { edition: 2 },
    query: { row: 'item-1' },
  })
})

test('what begins so comes first', () => {
  expect(titles('cloud').slice(0, 3)).toEqual(['Clouds by name', 'Cloud diary', 'Clouds again'])
})

test('a student, a section, a screen and an act are found, acts by what else they are called', () => {
  expect(titles('osei')).toEqual(['Imke Osei'])
  expect(found(all, 'osei').shown[0]!.to).toMatchObject({ name: 'one-student', params: { student: 31 } })
  expect(titles('alder')[0]).toBe('9 Alder')
  expect(titles('pace')[0]).toBe('Pace')
  expect(titles('give back')[0]).toBe('Give back work')
  expect(titles('cancel a class')[0]).toBe('Cancel a class')
  expect(titles('deadline')).toEqual(['Set dates'])
})

test('nothing written offers the screens, and what is nowhere is not found', () => {
  expect(titles('')).toEqual([
    'Today',
    'Outline',
    'Dates',
    'Work',
    'Pace',
    'Conditions',
    'Sections',
    'Scores',
    'Editions',
    'Team',
  ])
  expect(found(all, 'zebra')).toEqual({ shown: [], others: 0 })
})

test('how many more there are is said', () => {
  expect(found(all, 'a', 3)).toMatchObject({ shown: { length: 3 }, others: expect.any(Number) })
  expect(found(all, 'a', 3).others).toBeGreaterThan(0)
})
