import { describe, expect, it } from 'vitest'
import { cellsOf, textOf } from './copyText'
import { type Item, type OwnFile, beginning, mark, nothing, writtenIn } from './written'

describe('a table as cells', () => {
  it('comes back as it was, in the way it was separated', () => {
    for (const text of ['day,cloud\nMon,"cirrus, high"\nTue,"he said ""grey"""\n', 'a;b;c\n1;2,5;3\n', 'a\tb\n\tx\n'])
      expect(textOf(cellsOf(text), text)).toBe(text)
  })
  it('fills short rows, and an empty text is one cell', () => {
    expect(cellsOf('a,b,c\n1')).toEqual([
      ['a', 'b', 'c'],
      ['1', '', ''],
    ])
    expect(cellsOf('')).toEqual([['']])
  })
  it('reads tables of any length', () => expect(cellsOf('a,b\n'.repeat(500))).toHaveLength(500))
})

const file = (id: number | null, upload: string | null = null): OwnFile => ({
  id,
  upload,
  name: 'sheet.csv',
  size: '1 kB',
  shown: null,
})

describe('what is written', () => {
  it('counts what was written in copies that are still there', () => {
    const written = {
      ...nothing(),
      files: [file(1), file(2, 'sent'), file(null, 'new')],
      copies: { 1: 'a', 2: 'b', 3: 'c' },
    }
    expect(writtenIn(written)).toEqual([{ file: 1, text: 'a' }])
    expect(mark(written)).not.toBe(mark({ ...written, copies: {} }))
    expect(mark(written)).toBe(mark({ ...written, copies: { 1: 'a' } }))
  })
  it('begins again with the copies that came back, and with nothing while the teacher has them', () => {
    const given = { id: 7, name: 'sheet.csv', sizeInWords: '1 kB' }
    const item = (progress: string) =>
      ({
        progress,
        asks: { way: 'work' },
        copies: [{ own: 7 }],
        history: [
          { takenBackAt: { words: 'today' }, files: [{ id: 5 }], entries: [] },
          { takenBackAt: null, files: [given, { id: 8 }], entries: [] },
        ],
      }) as unknown as Item
    expect(beginning(item('given-back')).files.map((one) => one.id)).toEqual([7])
    expect(beginning(item('with-teacher')).files).toEqual([])
  })
})
