/** A student as they stand in the list. */
export interface Listed {
  id: number
  name: string
}

/** A line of a list that was pasted: a student and their group, or what is wrong with it. */
export type GroupLine = { line: number; student: Listed; group: string } | { line: number; text: string; wrong: string }

const folded = (text: string) => text.normalize('NFC').toLowerCase().replace(/\s+/g, ' ').trim()

/** The parts of a line: between tabs, semicolons or commas, without quotation marks. */
const partsOf = (line: string) =>
  line
    .split(line.includes('\t') ? '\t' : line.includes(';') ? ';' : ',')
    .map((part) =>
      part
        .trim()
        .replace(/^"(.*)"$/, '$1')
        .trim(),
    )
    .filter(Boolean)

/** Reads who is in which group, a student on each line: the name, as it is in the list, and the group, in either order. */
export function readGroups(text: string, students: readonly Listed[]): GroupLine[] {
  const seen = new Map<number, number>()
  const called = (name: string) => students.filter((one) => folded(one.name) === folded(name))
  return text.split(/\r\n|\r|\n/).flatMap((raw, at): GroupLine[] => {
    const line = at + 1
    const written = raw.trim()
    if (!written) return []
    const parts = partsOf(raw)
    const wrong = (what: string) => [{ line, text: written, wrong: what }]
    if (parts.length < 2) return wrong('a name and a group, with a comma or a tab between them')
    // A spreadsheet’s own names for its columns are no student.
    if (at === 0 && parts.every((part) => called(part).length === 0) && /name|student/i.test(written)) return []
    const place = parts.findIndex((part) => called(part).length > 0)
    if (place < 0) return wrong('nobody of that name is in this section')
    const found = called(parts[place]!)
    if (found.length > 1) return wrong('two students have that name: put one of them in below')
    const student = found[0]!
    const before = seen.get(student.id)
    if (before) return wrong(`${student.name} is on line ${before} already`)
    seen.set(student.id, line)
    return [{ line, student, group: parts[place === 0 ? 1 : 0]!.slice(0, 60) }]
  })
}

/** The groups that lines come to, in the order in which they are first named. */
export function groupsOf(lines: readonly GroupLine[]): { name: string; members: number[] }[] {
  const groups = new Map<string, number[]>()
  for (const line of lines)
    if ('student' in line) groups.set(line.group, [...(groups.get(line.group) ?? []), line.student.id])
  return [...groups].map(([name, members]) => ({ name, members }))
}
