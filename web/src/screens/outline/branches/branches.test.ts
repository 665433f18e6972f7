import { expect, test } from 'vitest'
import { branchOf, gateOfBranch, misfits, optionOf, stretchesOf } from './branches'

const branch = (from: number | null, below: number | null, item = 'i') => ({ item, from, below })

test('two that meet fit exactly, 100 per cent too', () => {
  const stretches = stretchesOf([branch(70, null), branch(null, 70)])
  expect(stretches).toEqual([
    { from: 0, to: 70, opens: 1 },
    { from: 70, to: 100, opens: 1 },
  ])
  expect(misfits(stretches)).toEqual([])
})

test('gaps and overlaps are said where they are', () => {
  expect(misfits(stretchesOf([branch(80, null), branch(null, 50), branch(40, 60)]))).toEqual([
    '2 open from 40 % to below 50 %.',
    'Nothing opens from 60 % to below 80 %.',
  ])
  expect(misfits(stretchesOf([branch(null, 100)]))).toEqual(['Nothing opens at 100 %.'])
  expect(misfits(stretchesOf([branch(0, null), branch(90, 100)]))).toEqual(['2 open from 90 % to below 100 %.'])
})

test('a condition is a branch only if it asks a score of that item and nothing else', () => {
  expect(branchOf({ key: 'b', gate: { item: 'q', scoreMin: 70, latch: true } }, 'q')).toEqual(branch(70, null, 'b'))
  expect(branchOf({ key: 'b', gate: { item: 'q', is: 'opened' } }, 'q')).toBeNull()
  expect(branchOf({ key: 'b', gate: { all: [{ item: 'q', scoreMin: 70 }] } }, 'q')).toBeNull()
  expect(branchOf({ key: 'b', gate: null }, 'q')).toBeNull()
  expect(optionOf({ gate: { choice: 'q', picked: 'one' } }, 'q')).toBe('one')
  expect(optionOf({ gate: { choice: 'r', picked: 'one' } }, 'q')).toBeNull()
})

test('what is not said of a branch makes no condition', () => {
  expect(gateOfBranch(branch(null, 70), 'q')).toEqual({ item: 'q', scoreBelow: 70 })
  expect(gateOfBranch(branch(null, null), 'q')).toBeNull()
  expect(gateOfBranch(branch(70, 70), 'q')).toBeNull()
})
