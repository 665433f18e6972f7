import { describe, expect, it } from 'vitest'
import { whereItLeads } from './links'

describe('where an address leads', () => {
  it.each([
    ['https://harbour.example/tides', 'https://harbour.example/tides'],
    [' harbour.example/tides ', 'https://harbour.example/tides'],
    ['office@fenwater.example', 'mailto:office@fenwater.example'],
    ['mailto:office@fenwater.example', 'mailto:office@fenwater.example'],
    ['  ', null],
  ])('%s leads to %s', (typed, leads) => expect(whereItLeads(typed)).toBe(leads))

  it('never runs anything', () => {
    for (const typed of ['javascript:run()', 'data:text/html,x', ' JavaScript:run()'])
      expect(whereItLeads(typed)).toMatch(/^https:\/\//)
  })
})
