import { describe, expect, it } from 'vitest'
import type { Answer } from './dateCells'
import { type Block, copied, holds, moved, pasted } from './dateBlock'
import { changesOf } from './dateCells'
import { kindsOf, linesOf, mondayOf, noFilter, rowsOf, weeksOf } from './dateRows'

const moment = (local: string) => ({ instant: '', local, weekday: '', words: local })
const cell = (due: string | null, version?: number) => ({
  opens: null,
  due: due === null ? null : moment(due),
  closes: null,
  hasOpened: false,
  unresolved: false,
  held: false,
  skipped: false,
  absent: false,
  students: 20,
  differs: version === undefined ? [] : [{ field: 'due' as const, version, course: null }],
  toCheck: due === null ? ['no date'] : [],
})
const section = (id: number) => ({
  id,
  name: `S${id}`,
  letter: 'A',
  students: 1,
  classes: 1,
  lacking: 0,
  toCheck: [],
  pretend: false,
})
const row = (item: number, kind: string, cells: ReturnType<typeof cell>[], published = true) => ({
  item,
  code: `1.0${item}`,
  title: `Item ${item}`,
  kind,
  published,
  opens: null,
  due: null,
  cells,
})
const answer: Answer = {
  edition: 1,
  version: 1,
  canChange: true,
  differences: 1,
  toCheck: 0,
  sections: [section(7), section(8)],
  units: [
    {
      number: 1,
      title: 'One',
      items: [
        row(1, 'task', [cell('2026-10-12T12:00:00'), cell('2026-10-13T09:30:00', 3)]),
        row(2, 'page', [cell(null), cell(null)], false),
      ],
    },
    { number: 2, title: 'Two', items: [row(3, 'quiz', [cell('2026-10-25T23:59:00'), cell('2026-11-02T08:00:00')])] },
  ],
}
const at: Block = { field: 'due', from: { row: 0, column: 0 }, to: { row: 0, column: 0 } }
const all: Block = { field: 'due', from: { row: 1, column: 1 }, to: { row: 0, column: 0 } }

describe('changes of some cells', () => {
  it('name for each what was read there', () =>
    expect(
      changesOf(answer, [1, 3], [7, 8], 'due', { value: null }).map((one) => [one.target, one.section, one.version]),
    ).toEqual([
      [1, 7, 0],
      [1, 8, 3],
      [3, 7, 0],
      [3, 8, 0],
    ]))

  it('put back only what differs', () =>
    expect(changesOf(answer, [1, 2, 3], [7, 8], 'due', 'put-back').map((one) => [one.target, one.section])).toEqual([
      [1, 8],
    ]))
})

describe('the table', () => {
  it.each([
    [{}, [1, 2, 3]],
    [{ words: 'ITEM 2' }, [2]],
    [{ unit: '2' }, [3]],
    [{ week: '2026-10-12', section: '8' }, [1]],
    [{ week: '2026-10-19' }, [3]],
    [{ week: '2026-10-19', section: '8' }, []],
    [{ week: '2026-10-12T12:00/2026-10-19T12:00' }, [1]],
    [{ week: '2026-10-12T12:00/2026-10-19T12:00', section: '7' }, []],
    [{ only: 'differs', section: '7' }, []],
    [{ kind: 'page' }, [2]],
    [{ week: '2026-10-19' }, [3]],
    [{ only: 'differs' }, [1]],
    [{ only: 'to-check' }, [2]],
    [{ only: 'unpublished' }, [2]],
    [{ unit: '1', only: 'differs', words: '2' }, []],
  ])('filtered by %j shows %j', (part, items) =>
    expect(rowsOf(linesOf(answer, { ...noFilter, ...part })).map((one) => one.item)).toEqual(items),
  )

  it('numbers its items on through the units and gives a head only to units that show one', () =>
    expect(
      linesOf(answer, { ...noFilter, words: '3' }).map((line) => ('head' in line ? line.head.title : line.place)),
    ).toEqual(['Two', 0]))

  it('knows its weeks and kinds', () => {
    expect(weeksOf(answer)).toEqual(['2026-10-12', '2026-10-19', '2026-11-02'])
    expect(kindsOf(answer)).toEqual(['page', 'quiz', 'task'])
    expect([mondayOf('2026-10-25T23:59:00'), mondayOf('2026-10-26T00:00:00')]).toEqual(['2026-10-19', '2026-10-26'])
  })
})

describe('a block of dates', () => {
  const fields = ['opens', 'due'] as const
  const go = (block: Block, key: string, grows = false) => moved(block, key, grows, fields, 3, 2)

  it('goes through the dates of a cell before it leaves it, and stops at the edges', () => {
    expect(go(at, 'ArrowUp')).toMatchObject({ field: 'opens', to: { row: 0, column: 0 } })
    expect(go(at, 'ArrowDown')).toMatchObject({ field: 'opens', to: { row: 1, column: 0 } })
    expect(go(at, 'ArrowRight')).toMatchObject({ field: 'due', to: { row: 0, column: 1 } })
    expect(go(at, 'ArrowLeft')).toMatchObject({ to: { row: 0, column: 0 } })
    expect(go(at, 'PageDown')).toMatchObject({ field: 'due', to: { row: 2, column: 0 } })
    expect(go(at, 'x')).toBeNull()
  })

  it('grows from where one began, in one kind of date', () => {
    const grown = go(go(at, 'ArrowDown', true)!, 'End', true)!
    expect(grown).toEqual({ field: 'due', from: { row: 0, column: 0 }, to: { row: 1, column: 1 } })
    expect([holds(grown, 'due', 1, 0), holds(grown, 'opens', 1, 0), holds(grown, 'due', 2, 0)]).toEqual([
      true,
      false,
      false,
    ])
  })

  it('is copied row by row', () =>
    expect(copied(all, rowsOf(linesOf(answer, noFilter)))).toBe('2026-10-12 12:00\t2026-10-13 09:30\n\t'))

  it('comes back from a spreadsheet as it was copied, empty cells left as they are', () => {
    expect(pasted(copied(all, rowsOf(linesOf(answer, noFilter))), { row: 0, column: 0 }, 3, 2)).toEqual({
      cells: [
        { row: 0, column: 0, date: '2026-10-12', time: '12:00' },
        { row: 0, column: 1, date: '2026-10-13', time: '09:30' },
      ],
      faults: [],
    })
  })

  it('names what is no date and leaves out what lies outside', () =>
    expect(
      pasted('2026-10-12\tsoon\r\n2026-02-30 10:00\t2026-10-14\t2026-10-15\r\n', { row: 1, column: 0 }, 3, 2),
    ).toEqual({
      cells: [
        { row: 1, column: 0, date: '2026-10-12', time: null },
        { row: 2, column: 1, date: '2026-10-14', time: null },
      ],
      faults: [
        { row: 1, column: 2, text: 'soon' },
        { row: 2, column: 1, text: '2026-02-30 10:00' },
      ],
    }))
})
