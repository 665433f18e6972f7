import { expect, test } from 'vitest'
import { plainLevels } from '../../../foundation/levels'
import type { Row } from '../outlineRows'
import { countedOf, outermost, placesOf, requestOf, stepsOf } from './chosenActs'

const item = (id: number) => ({ id, lineage: `i${id}`, version: 1, only: null })
const [warm, cold] = [
  { id: 7, version: 2, title: 'Warm', only: null, items: [item(10), item(11)] },
  { id: 8, version: 3, title: 'Cold', only: null, items: [] },
]
const fronts = { id: 1, version: 4, title: 'Fronts', only: null, lessons: [warm, cold], items: [] }
const storms = { id: 2, version: 5, title: 'Storms', only: 'B', lessons: [], items: [] }
const rows = [
  { level: 'unit', key: 'unit-1', unit: fronts },
  { level: 'lesson', key: 'lesson-7', lesson: warm, unit: fronts },
  { level: 'item', key: 'item-10', item: warm.items[0], lesson: warm, unit: fronts },
  { level: 'item', key: 'item-11', item: warm.items[1], lesson: warm, unit: fronts },
  { level: 'lesson', key: 'lesson-8', lesson: cold, unit: fronts },
  { level: 'unit', key: 'unit-2', unit: storms },
] as unknown as Row[]
const chosen = (...keys: string[]) => rows.filter((row) => keys.includes(row.key))
const places = (...keys: string[]) =>
  placesOf(rows, chosen(...keys), plainLevels)?.map((place) => [place.title, place.change]) ?? null

test('items go to the end of a lesson or a unit, after those that stay', () =>
  expect(places('item-11')).toEqual([
    ['Fronts, on the unit itself', { place: { unit: 1, lesson: null, after: null } }],
    ['Warm', { place: { unit: 1, lesson: 7, after: 10 } }],
    ['Cold', { place: { unit: 1, lesson: 8, after: null } }],
  ]))

test('whole lessons go to the end of a unit, whole units after another; several kinds go nowhere together', () => {
  expect(places('lesson-7', 'item-10', 'item-11')).toEqual([['Fronts', { lessonsPlace: { unit: 1, after: 8 } }]])
  expect(places('unit-2')).toEqual([
    ['before everything else', { unitsPlace: { after: null } }],
    ['after Fronts', { unitsPlace: { after: 1 } }],
  ])
  expect(places('lesson-8', 'item-10')).toBeNull()
})

test('what is in a chosen unit or lesson moves with it, and all is sent as it was read', () => {
  const all = chosen('unit-1', 'lesson-7', 'item-10', 'item-11', 'lesson-8')
  expect(outermost(all).map((row) => row.key)).toEqual(['unit-1'])
  expect(countedOf(all, plainLevels)).toBe('1 unit, 2 lessons and 2 items')
  expect(requestOf(all, { remove: true })).toEqual({
    items: [
      { item: 10, version: 1 },
      { item: 11, version: 1 },
    ],
    lessons: [
      { lesson: 7, version: 2 },
      { lesson: 8, version: 3 },
    ],
    units: [{ unit: 1, version: 4 }],
    remove: true,
  })
})

test('one after another, each item but the first waits for the one before it', () => {
  expect(stepsOf(chosen('lesson-7', 'item-10', 'item-11'), 'submitted')).toEqual([
    { item: 11, gate: { item: 'i10', is: 'submitted' }, version: 1 },
  ])
  expect(stepsOf(chosen('item-10'), 'opened')).toEqual([])
})
