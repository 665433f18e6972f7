import { describe, expect, it } from 'vitest'
import { inShort } from '../../parts/timing/periodGrid'
import { readSections } from './pastedSections'

const orla = { person: 1, name: 'Orla Tierney-Vance', email: 'orla@fenwater.example' }
const tomas = { person: 2, name: 'Tomas Reeve', email: 'tomas@fenwater.example' }
const known = {
  teachers: [orla, tomas],
  names: ['9 Alder'],
  days: ['mon', 'tue', 'wed'].map((label) => ({ label, words: label })),
  periods: ['P1', 'P2', 'P3'],
}
const only = (text: string) => readSections(text, known)[0]!

describe('pasted sections', () => {
  it.each([
    ['9 Elder, Orla Tierney-Vance, Mon P1, Wed P2-P3, Geography'],
    ['9 Elder\tgeography\torla@fenwater.example\tMon P1; wed p2–p3'],
    ['9 Elder; Tierney-Vance; Mon P1, Wed P2-P3; GEOGRAPHY'],
    ['"9 Elder","Tierney-Vance","Mon P1, Wed P2-P3",Geography'],
  ])('are read in any form: %s', (text) => {
    const line = only(text)
    expect(line).toMatchObject({ name: '9 Elder', teachers: [orla], year: '9' })
    if ('slots' in line) expect(inShort(line.slots, known.days)).toBe('Mon P1, Wed P2–P3')
    expect(JSON.stringify(line).toLowerCase()).toContain('"subject":"geography"')
  })

  it('have several teachers and a year of their own', () =>
    expect(only('Rowan; Orla Tierney-Vance and Tomas Reeve; year 10')).toMatchObject({
      teachers: [orla, tomas],
      year: '10',
      subject: '',
    }))

  it.each([
    ['9 alder', 'there is a section 9 alder already'],
    ['; Reeve', 'there is no name'],
    ['9 Elder; somebody@else.example', 'nobody here teaches under somebody@else.example'],
    ['9 Elder; Art; Mon P9', '“Mon P9” is not a teacher or a time, and there is a subject already'],
  ])('say what is wrong: %s', (text, wrong) => expect(only(text)).toMatchObject({ wrong }))

  it('stand there once each', () =>
    expect(readSections('9 Elder\n\n9 ELDER', known)[1]).toMatchObject({
      line: 3,
      wrong: '9 ELDER stands on line 1 already',
    }))
})
