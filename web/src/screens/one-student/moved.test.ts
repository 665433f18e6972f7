import { describe, expect, it } from 'vitest'
import { type MoveRow, asked, becomes, sorted } from './moved'

const at = (words: string) => ({ instant: '', local: '', weekday: 'thu', words })
const row = (state: MoveRow['state'], more: Partial<MoveRow> = {}): MoveRow => ({
  item: 1,
  code: '1.01',
  title: 'A task',
  state,
  done: false,
  readable: false,
  dueThere: null,
  dueHere: null,
  keptOpen: false,
  choice: null,
  proposed: null,
  ...more,
})

describe('what a move comes to', () => {
  it('says of each item what becomes of it', () => {
    expect(becomes(row('dropped', { readable: true }))).toBe('is not taught there, but stays readable')
    expect(becomes(row('extra'))).toBe('is new to them, no due date')
    expect(becomes(row('already-due', { dueHere: at('Thu 1 Oct, 09:30') }))).toBe('was due there Thu 1 Oct, 09:30')
    expect(becomes(row('later', { dueHere: at('Thu 12 Nov, 09:30') }))).toBe('due Thu 12 Nov, 09:30, later than before')
  })

  it('puts first what asks for a choice, and only counts what stays the same', () => {
    const { asks, differs, same } = sorted([
      row('same'),
      row('later'),
      row('already-due'),
      row('done'),
      row('same', { keptOpen: true }),
    ])
    expect([asks.length, differs.length, same]).toEqual([1, 2, 2])
  })

  it('asks only for what is chosen otherwise than proposed', () => {
    expect(
      asked(
        new Map([
          [3, 'excuse'],
          [4, 'new'],
          [5, 'keep'],
        ]),
      ),
    ).toBe('3:excuse,5:keep')
  })
})
