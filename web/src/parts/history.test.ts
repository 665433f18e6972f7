// @vitest-environment jsdom
import { expect, test } from 'vitest'
import { stepsOf } from './useHistory'

const change = (batch: number, more: object = {}) => ({
  batch,
  words: `did ${batch}`,
  mine: true,
  undone: false,
  isUndo: false,
  isRedo: false,
  ...more,
})
const steps = (...changes: ReturnType<typeof change>[]) => {
  const { back, forth } = stepsOf(changes.reverse())
  return [back?.batch, forth?.batch]
}

test('undo goes one step further back each time, and never takes back a taking back', () => {
  expect(steps()).toEqual([undefined, undefined])
  expect(steps(change(1), change(2))).toEqual([2, undefined])
  expect(steps(change(1), change(2, { undone: true }), change(3, { isUndo: true }))).toEqual([1, 3])
  expect(
    steps(
      change(1, { undone: true }),
      change(2, { undone: true }),
      change(3, { isUndo: true }),
      change(4, { isUndo: true }),
    ),
  ).toEqual([undefined, 4])
})

test('redo brings back the latest taking back, then the one before it, until something else is done', () => {
  const undoneTwice = [change(1, { undone: true }), change(2, { undone: true }), change(3, { isUndo: true })]
  expect(steps(...undoneTwice, change(4, { isUndo: true, undone: true }), change(5, { isRedo: true }))).toEqual([5, 3])
  expect(steps(...undoneTwice, change(4, { isUndo: true }), change(5))).toEqual([5, undefined])
  // What somebody else did is neither.
  expect(steps(change(1), change(2, { mine: false }))).toEqual([1, undefined])
})
