import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../foundation/api/client'
import type { Student } from './scoreLines'
import { keyOf, placePasted, readScore, toGive } from './scoreWriting'

const points = { as: 'points', outOf: 12, levels: [] }
const scale = {
  as: 'scale',
  outOf: 100,
  levels: ['not yet', 'nearly there', 'there'].map((name) => ({ name, percent: null })),
}
const items = [
  { item: 7, code: '1.01', marked: points },
  { item: 8, code: '1.02', marked: null },
  { item: 9, code: '1.03', marked: scale },
] as unknown as Schemas['ScoreItem'][]
const student = (id: number, name: string, ...words: string[]): Student =>
  ({
    student: id,
    name,
    cells: words.map((one) => ({ words: one, points: /\d/.test(one) ? one : null })),
  }) as unknown as Student
const students = [
  student(1, 'Aino Abara', 'overdue', 'done', 'to come'),
  student(2, 'Bashir Brennan', '7', 'done', 'to come'),
  student(3, 'Dao Dvorak', 'excused', 'done', 'to come'),
]

describe('a score as it is written', () => {
  it('takes a point or a comma, and a sign of per cent where it is one', () => {
    expect(readScore(points, ' 7,25 ')).toEqual({ value: 7.25, level: null })
    expect(readScore({ ...points, as: 'percent' }, '70 %')).toEqual({ value: 70, level: null })
    expect(readScore(points, '0')).toEqual({ value: 0, level: null })
  })
  it.each(['-1', '7.255', '7 of 12', '10001', 'seven', '1e3', '70 %'])('refuses %s', (text) =>
    expect(readScore(points, text)).toHaveProperty('problem'),
  )
  it('takes a level, cut short as long as it is one only', () => {
    expect(readScore(scale, 'NEARLY')).toEqual({ value: null, level: 'nearly there' })
    expect(readScore(scale, 'there')).toEqual({ value: null, level: 'there' })
    expect(readScore(scale, 'n')).toHaveProperty('problem')
  })
})

describe('what is pasted', () => {
  it('goes down from its cell, and says what finds no place', () => {
    const { written, unplaced } = placePasted('8\n9\n10\n', 1, students, [0, 1, 2], items)
    expect([...written]).toEqual([[keyOf(2, 7), '8']])
    expect(unplaced).toEqual(['Dao Dvorak takes no score in 1.01', 'line 3 comes after the last student'])
  })
  it('goes across the columns that are shown', () => {
    const { written, unplaced } = placePasted('8\tthere\r\n9\tnot yet\textra', 0, students, [0, 2], items)
    expect(written.get(keyOf(1, 9))).toBe('there')
    expect(written.get(keyOf(2, 7))).toBe('9')
    expect(unplaced).toEqual(['“extra” of Bashir Brennan has no column'])
  })
  it('finds students by name in any order, and leaves blank cells alone', () => {
    const { written, unplaced } = placePasted(
      'bashir brennan\t11\nNobody Known\t3\nAino Abara\t\nDao Dvorak\t',
      0,
      students,
      [0],
      items,
    )
    expect([...written]).toEqual([[keyOf(2, 7), '11']])
    expect(unplaced).toEqual(['nobody here is called “Nobody Known”'])
  })
})

describe('what is given', () => {
  it('is what differs and can be read; the rest is named', () => {
    const written = new Map([
      [keyOf(1, 7), '12,5'],
      [keyOf(2, 7), '7'],
      [keyOf(2, 9), 'perhaps'],
      [keyOf(1, 9), ' '],
    ])
    expect(toGive(written, students, items)).toEqual({
      scores: [{ item: 7, student: 1, value: 12.5, level: null }],
      problems: ['1.03 of Bashir Brennan: “perhaps” is none of not yet, nearly there, there'],
      more: ['12.5 of 12 for Aino Abara'],
    })
  })
})
