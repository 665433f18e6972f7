import { describe, expect, it } from 'vitest'
import { lacking, said } from './roster'

describe('the columns of a table', () => {
  it('are each something else', () =>
    expect(said(['name', 'email', 'ignored'], 2, 'email')).toEqual(['name', 'ignored', 'email']))

  it('may be left unused as many as there are', () =>
    expect(said(['ignored', 'email'], 1, 'ignored')).toEqual(['ignored', 'ignored']))

  it.each([
    [['email', 'section'], 'Say which column has the names.'],
    [['given-name', 'email', 'section'], 'Say which column has the names.'],
    [['family-name', 'section'], 'Say which column has the mail addresses.'],
    [['name', 'email'], 'Say which column has the sections.'],
    [['name', 'email', 'section'], null],
  ] as const)('say what is lacking: %s', (columns, words) => expect(lacking(columns)).toBe(words))
})
