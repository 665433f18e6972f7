import { type DayChoice, timesOf } from '../../parts/timing/periodGrid'
import type { SlotDraft } from '../../parts/timing/slots'

/** Somebody who can teach a section. */
export interface Teacher {
  person: number
  name: string
  email: string
}

/** A section as a line says it. */
export interface SectionLine {
  line: number
  name: string
  teachers: Teacher[]
  slots: SlotDraft[]
  subject: string
  year: string
}

/** A line that was read, or what is wrong with it. */
export type PastedSection = SectionLine | { line: number; text: string; wrong: string }

/** What a line can refer to. */
export interface Known {
  teachers: readonly Teacher[]
  /** The names that are taken. */
  names: readonly string[]
  days: readonly DayChoice[]
  periods: readonly string[]
}

/**
 * Reads sections, one on each line: the name, then in any order its teachers by name or mail address, when it meets, its year
 * and its subject; divided by tabs, semicolons or commas.
 */
export function readSections(text: string, known: Known): PastedSection[] {
  const seen = new Map(known.names.map((name) => [name.toLowerCase(), 0]))
  return text.split(/\r?\n/).flatMap((raw, at): PastedSection[] => {
    const line = at + 1
    const written = raw.trim()
    if (!written) return []
    const wrong = (words: string): PastedSection[] => [{ line, text: written, wrong: words }]
    const [name, ...fields] = divided(written)
    if (!name) return wrong('there is no name')
    const before = seen.get(name.toLowerCase())
    if (before !== undefined)
      return wrong(before === 0 ? `there is a section ${name} already` : `${name} stands on line ${before} already`)
    const section: SectionLine = { line, name, teachers: [], slots: [], subject: '', year: '' }
    for (const field of fields) {
      const fault = take(section, field, known)
      if (fault) return wrong(fault)
    }
    section.year ||= /^\d{1,2}\b/.exec(name)?.[0] ?? ''
    seen.set(name.toLowerCase(), line)
    return [section]
  })
}

/** The fields of a line; what stands between quotation marks is one, whatever is in it. */
function divided(line: string): string[] {
  const mark = line.includes('\t') ? '\t' : line.includes(';') ? ';' : ','
  const fields = ['']
  let quoted = false
  for (const letter of line) {
    if (letter === '"') quoted = !quoted
    else if (letter === mark && !quoted) fields.push('')
    else fields[fields.length - 1] += letter
  }
  return fields.map((field) => field.trim())
}

/** Puts a field where it belongs; null: it was understood. */
function take(section: SectionLine, field: string, known: Known): string | null {
  if (!field) return null
  const teachers = field.split(/\s*(?:,|\/|&|\+|\band\b)\s*/).map((one) => teacherOf(one, known.teachers))
  if (teachers.every((one) => one !== null)) {
    for (const teacher of teachers) if (!section.teachers.includes(teacher)) section.teachers.push(teacher)
    return null
  }
  if (field.includes('@')) return `nobody here teaches under ${field}`
  const times = timesOf(field, known.days, known.periods)
  if (times) {
    section.slots.push(...times)
    return null
  }
  const year = /^(?:(?:year|grade|class)\s*)?(\d{1,2})$/i.exec(field)
  if (year) {
    section.year = year[1]!
    return null
  }
  if (section.subject) return `“${field}” is not a teacher or a time, and there is a subject already`
  section.subject = field
  return null
}

/** By mail address, whole name, or a family name that only one of them has. */
function teacherOf(written: string, teachers: readonly Teacher[]): Teacher | null {
  const wanted = written.trim().toLowerCase()
  const exact = teachers.find((one) => one.email.toLowerCase() === wanted || one.name.toLowerCase() === wanted)
  if (exact) return exact
  const byFamily = teachers.filter((one) => one.name.toLowerCase().endsWith(` ${wanted}`))
  return wanted && byFamily.length === 1 ? byFamily[0]! : null
}
