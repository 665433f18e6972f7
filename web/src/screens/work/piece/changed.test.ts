import { describe, expect, it } from 'vitest'
import { stretchesOf } from '../../../parts/text/stretches'
import { changesOf } from './changed'

const file = (id: number, name: string) => ({ id, name, size: 1, sizeInWords: '1 byte', kind: 'text', address: '' })
const version = (more: object) => ({ text: '', files: [], links: [], entries: [], ...more })

describe('a text beside the one before it', () => {
  it('tells the words that came and went', () => {
    expect(stretchesOf('The wind came from the west.', 'The wind came hard from the south.')).toEqual([
      { text: 'The wind came ', how: 'same' },
      { text: 'hard ', how: 'added' },
      { text: 'from the ', how: 'same' },
      { text: 'west', how: 'removed' },
      { text: 'south', how: 'added' },
      { text: '.', how: 'same' },
    ])
  })
  it('is whole again without what went, and the earlier one without what came', () => {
    const [before, now] = ['one\n\ntwo  three', 'one two\nfour three!']
    const all = stretchesOf(before, now)
    const without = (how: string) =>
      all
        .filter((one) => one.how !== how)
        .map((one) => one.text)
        .join('')
    expect(without('removed')).toBe(now)
    expect(without('added')).toBe(before)
  })
  it('is new as a whole where there was none', () => {
    expect(stretchesOf('', 'Calm.')).toEqual([{ text: 'Calm.', how: 'added' }])
    expect(stretchesOf('', '')).toEqual([])
  })
})

describe('files, links and days', () => {
  it('tells those that came and went, also under the same name', () => {
    expect(
      changesOf(
        version({ files: [file(1, 'chart.jpg'), file(2, 'log.csv')], links: ['https://a.example'] }),
        version({ files: [file(3, 'chart.jpg'), file(2, 'log.csv')], entries: [{ on: '2026-10-05', text: 'Fog.' }] }),
      ),
    ).toEqual([
      { what: 'chart.jpg', how: 'added' },
      { what: '2026-10-05: Fog.', how: 'added' },
      { what: 'chart.jpg', how: 'removed' },
      { what: 'https://a.example', how: 'removed' },
    ])
  })
})
