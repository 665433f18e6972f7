import { describe, expect, it } from 'vitest'
import { rowsOf, sizeInWords } from './fileWords'

describe('how large a file is', () => {
  it.each([
    [1, '1 byte'],
    [1023, '1023 bytes'],
    [1024, '1 kB'],
    [1_500_000, '1.4 MB'],
    [250 * 1024 ** 2, '250 MB'],
    [2 * 1024 ** 3, '2 GB'],
  ])('%d bytes are %s', (bytes, words) => expect(sizeInWords(bytes)).toBe(words))
})

describe('a table in a file', () => {
  it('keeps commas, quotes and line breaks within quotes', () =>
    expect(rowsOf('day,"wind, in knots"\r\nMon,"he said ""calm""\nthen rain"\r\n')).toEqual([
      ['day', 'wind, in knots'],
      ['Mon', 'he said "calm"\nthen rain'],
    ]))
  it('takes semicolons and tabs where the first line has more of them', () => {
    expect(rowsOf('a;b;c\n1,5;2;3')).toEqual([
      ['a', 'b', 'c'],
      ['1,5', '2', '3'],
    ])
    expect(rowsOf('a\tb\n1\t2')[1]).toEqual(['1', '2'])
  })
  it('leaves out empty lines, and ends where enough is shown', () => {
    expect(rowsOf('a\n\n\nb\n')).toEqual([['a'], ['b']])
    expect(rowsOf('x\n'.repeat(500), 3)).toHaveLength(3)
  })
  it('shows what was cut off as far as it goes', () =>
    expect(rowsOf('a,b\n1,"unfin')).toEqual([
      ['a', 'b'],
      ['1', 'unfin'],
    ]))
})
