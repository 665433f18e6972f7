import { describe, expect, it } from 'vitest'
import { type Outcome, between, groupsOf, sideBySide } from './lost'

const row = (target: string, field: string, before: string, after: string | null, from?: string, kind = 'task') => ({
  target,
  from,
  kind,
  name: `Item ${target}`,
  section: '9 Alder',
  field,
  before,
  after,
})
const outcome = (...rows: ReturnType<typeof row>[]): Outcome => ({
  words: '',
  reach: { rows, sections: [], sentence: '' } as never,
})

describe('ways to make up for a lost class', () => {
  it('stand side by side, each date once, and stay where a way leaves them', () =>
    expect(
      sideBySide([
        outcome(row('1', 'due', 'Mon', 'Wed'), row('2', 'opens', 'Wed', 'Fri')),
        { refused: 'none' },
        outcome(row('2', 'opens', 'Wed', null), row('9', 'classes', '44', '43'), row('3', 'due', 'Fri', 'Mon')),
        null,
      ]).map((one) => [one.name, one.before, ...one.after]),
    ).toEqual([
      ['Item 1', 'Mon', 'Wed', undefined, undefined, undefined],
      ['Item 2', 'Wed', 'Fri', undefined, null, undefined],
      ['Item 3', 'Fri', undefined, undefined, 'Mon', undefined],
    ]))

  it('begin with the two weeks after it, then quizzes, then dues on days without classes', () => {
    const rows = sideBySide([
      outcome(
        row('late', 'due', 'a', 'b', '2026-12-01T09:00'),
        row('quiz', 'opens', 'a', 'b', '2026-11-20T09:00', 'quiz'),
        row('off', 'due', 'a', 'b', '2026-11-18T09:00'),
        row('off', 'due on a day without classes', 'a', 'b'),
        row('soon', 'due', 'a', 'b', '2026-10-27T23:59'),
        row('near', 'classes', '44', '43'),
        row('first', 'due', 'a', 'b', '2026-10-14T10:40', 'quiz'),
      ),
      { refused: 'none' },
    ])
    expect(groupsOf(rows, { date: '2026-10-14' }).map((group) => group.rows.map((one) => one.name))).toEqual([
      ['Item first', 'Item soon'],
      ['Item quiz'],
      ['Item off'],
      ['Item late'],
    ])
    expect(rows.find((one) => one.name === 'Item off')!.isOffDay).toEqual([true, false])
    expect(groupsOf(rows.slice(0, 1), { date: '2026-10-14' })).toHaveLength(1)
    expect(groupsOf([], { date: '2026-10-14' })).toEqual([])
  })

  it('concern the classes from the first to the last', () => {
    const classes = [1, 2, 3, 4].map((ordinal) => ({ ordinal, date: `2026-10-0${ordinal}`, start: '08:40' })) as never[]
    expect(between(classes, classes[1]!, 3).map((one) => one.date)).toEqual(['2026-10-02', '2026-10-03'])
    expect(between(classes, classes[1]!, 0).map((one) => one.date)).toEqual(['2026-10-02'])
  })
})
