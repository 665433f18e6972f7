import type { Schemas } from '../../foundation/api/client'

export type Role = Schemas['SetTeamMemberRequest']['role']

export const roleWords: Record<Role, string> = {
  lead: 'lead',
  co: 'co-teacher of the course',
  sections: 'co-teacher of some sections',
  reader: 'reader',
}

export const roles = Object.keys(roleWords) as Role[]

type May = 'all' | 'own' | 'none'

/** What is done in a course, and who may do it: all of it, for the sections they teach, or not at all. */
export const acts: readonly { words: string; may: Record<Role, May> }[] = [
  {
    words: 'read the course, its dates and how far each section is',
    may: { lead: 'all', co: 'all', sections: 'all', reader: 'all' },
  },
  {
    words: 'write units, lessons and items, publish them, set conditions',
    may: { lead: 'all', co: 'all', sections: 'none', reader: 'none' },
  },
  {
    words: 'change dates, order and classes of a section; confirm what was taught',
    may: { lead: 'all', co: 'own', sections: 'own', reader: 'none' },
  },
  {
    words: 'know students by name, read and give back their work',
    may: { lead: 'all', co: 'own', sections: 'own', reader: 'none' },
  },
  {
    words: 'excuse students, give more time, have them join, move and leave',
    may: { lead: 'all', co: 'own', sections: 'own', reader: 'none' },
  },
  {
    words: 'roll over, end an edition, say who is on the team',
    may: { lead: 'all', co: 'none', sections: 'none', reader: 'none' },
  },
]

export const mayWords: Record<May, string> = { all: 'yes', own: 'in their sections', none: 'no' }
