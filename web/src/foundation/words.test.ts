import { expect, test } from 'vitest'
import { counted, ordinal } from './words'

test('one is one, and none or several are many', () => {
  expect([0, 1, 2].map((n) => counted(n, 'class', 'classes'))).toEqual(['0 classes', '1 class', '2 classes'])
  expect(counted(3, 'row')).toBe('3 rows')
})

test('places in a row end as they are spoken', () => {
  expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 103, 111].map(ordinal)).toEqual([
    '1st',
    '2nd',
    '3rd',
    '4th',
    '11th',
    '12th',
    '13th',
    '21st',
    '22nd',
    '103rd',
    '111th',
  ])
})
