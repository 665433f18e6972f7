import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'

export type PersonRow = Schemas['PersonAnswer']

/** A role in the school; whatever else somebody is follows from their courses and sections. */
export type Role = Schemas['SetRoleRequest']['role']

/** Something the office can do with an account. */
export interface Act {
  does: 'mail' | 'invite' | 'end-sessions' | 'teacher' | 'office' | 'deactivate' | 'reactivate' | 'separate'
  words: string
}

/** What the office can do with an account as it stands; their own they neither deactivate nor take out of the office. */
export function actsOn(person: PersonRow, hasMail: boolean): Act[] {
  if (person.joinedInto) return [{ does: 'separate', words: 'separate them again' }]
  if (person.state === 'deactivated') return [{ does: 'reactivate', words: 'reactivate' }]
  const others: Act[] = [
    ...(person.sessions > 0
      ? [{ does: 'end-sessions' as const, words: `sign out everywhere (${person.sessions})` }]
      : []),
    { does: 'office', words: person.office ? 'remove from the office' : 'add to the office' },
    { does: 'deactivate', words: 'deactivate' },
  ]
  return [
    ...(hasMail
      ? [{ does: 'mail' as const, words: `mail a link to set a ${person.state === 'invited' ? '' : 'new '}password` }]
      : []),
    {
      does: 'invite',
      words: `${hasMail ? 'show' : 'make'} a link to set a ${person.state === 'invited' ? '' : 'new '}password`,
    },
    { does: 'teacher', words: person.teacher ? 'no longer a teacher' : 'make a teacher' },
    ...(person.oneself ? [] : others),
  ]
}

/** Which people are shown. */
export type Only = '' | 'office' | 'teach' | 'students' | 'invited' | 'deactivated'

export const onlyWords: Record<Only, string> = {
  '': 'everybody',
  office: 'the school office',
  teach: 'teachers',
  students: 'students',
  invited: 'invited, no password yet',
  deactivated: 'deactivated',
}

function isOf(person: PersonRow, only: Only): boolean {
  switch (only) {
    case '':
      return true
    case 'office':
      return person.office
    case 'teach':
      return person.teacher || person.courses + person.teaches > 0
    case 'students':
      return person.studentIn.length > 0
    default:
      return person.state === only
  }
}

/** Those whose name, address or section has every written word, of the kind that is looked for. */
export function matching(people: readonly PersonRow[], words: string, only: Only): PersonRow[] {
  const wanted = words.trim().toLowerCase().split(/\s+/).filter(Boolean)
  return people.filter((person) => {
    const text = `${person.name} ${person.email} ${person.studentIn.join(' ')}`.toLowerCase()
    return isOf(person, only) && wanted.every((word) => text.includes(word))
  })
}

/**
 * Those who may be the same person: found by words of their name or address, or else by a name like it. The likest come first.
 */
export function mayBeOne(person: PersonRow, people: readonly PersonRow[], words: string): PersonRow[] {
  const parts = (name: string) => name.toLowerCase().split(/[\s-]+/)
  const own = parts(person.name)
  const alike = (other: PersonRow) => parts(other.name).filter((part) => own.includes(part)).length
  return matching(people, words, '')
    .filter((other) => other.person !== person.person && !other.joinedInto && (words.trim() || alike(other) > 0))
    .sort((one, other) => alike(other) - alike(one) || one.name.localeCompare(other.name))
}

/** What somebody is here, in words. */
export function partOf(person: PersonRow): string {
  const parts = [
    ...(person.office ? ['school office'] : []),
    ...(person.teacher && person.courses + person.teaches === 0 ? ['teacher'] : []),
    ...(person.courses ? [`on the team of ${counted(person.courses, 'course')}`] : []),
    ...(person.teaches ? [`teaches ${counted(person.teaches, 'section')}`] : []),
    ...(person.studentIn.length ? [`student in ${person.studentIn.join(', ')}`] : []),
  ]
  return parts.join('; ') || 'nothing at present'
}

/** How their account stands, in words. */
export const standingOf = (person: PersonRow) =>
  person.joinedInto
    ? 'joined with another account'
    : person.state === 'deactivated'
      ? 'deactivated'
      : person.state === 'invited'
        ? 'invited, no password yet'
        : person.lastIn
          ? `last signed in ${person.lastIn}`
          : 'has not signed in yet'

/** A line that was pasted: a name and a mail address, or what is wrong with it. */
export type PastedLine = { line: number; name: string; email: string } | { line: number; text: string; wrong: string }

const ADDRESS = /[^\s<>,;"]+@[^\s<>,;"]+/

/** Reads names and mail addresses, one person on each line, in whatever order and however divided. */
export function readPasted(text: string): PastedLine[] {
  const seen = new Map<string, number>()
  return text.split(/\r?\n/).flatMap((raw, at): PastedLine[] => {
    const line = at + 1
    const written = raw.trim()
    if (!written) return []
    const email = ADDRESS.exec(written)?.[0]
    if (!email) return [{ line, text: written, wrong: 'there is no mail address' }]
    const name = written
      .replace(email, ' ')
      .replace(/[<>,;"\t]+/g, ' ')
      .replace(/\s+/g, ' ')
      .trim()
    if (!name) return [{ line, text: written, wrong: 'there is no name' }]
    const before = seen.get(email.toLowerCase())
    if (before) return [{ line, text: written, wrong: `the address stands on line ${before} already` }]
    seen.set(email.toLowerCase(), line)
    return [{ line, name, email }]
  })
}
