import type { RouteLocationRaw } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'
import type { Levels } from '../../foundation/levels'

/** Something that can be found, and where it is. */
export interface Find {
  kind: 'item' | 'group' | 'student' | 'section' | 'screen' | 'act' | 'text'
  /** A code, where it has one. */
  code?: string
  title: string
  /** What else it is found by, and told apart by. */
  note: string
  /** Words it is found by as well, without being shown. */
  more?: string
  to: RouteLocationRaw
  /** What was found in its text or files. */
  hit?: Schemas['SearchHit']
}

const SCREENS = [
  ['today', 'Today', 'what needs you'],
  ['outline', 'Outline', 'the course and where everybody is in it'],
  ['dates', 'Dates', 'what opens and falls due, where'],
  ['work', 'Work', 'what there is to read'],
  ['pace', 'Pace', 'how far every section is'],
  ['conditions', 'Conditions', 'who gets through'],
  ['sections', 'Sections', 'classes, groups, timetables, differences'],
  ['scores', 'Scores', 'how they are doing'],
  ['editions', 'Editions', 'next term, last term'],
  ['team', 'Team', 'who may do what'],
] as const

/** What can be done, where, and what else people call it. */
const actsOf = ({ unit, item }: Levels) =>
  [
    ['Give back work', 'work', {}, 'feedback mark read return'],
    ['Confirm what was taught', 'today', {}, 'took place not finished class'],
    ['Cancel a class', 'sections', { shows: 'classes' }, 'lost class ill trip'],
    ['Move a class', 'sections', { shows: 'classes' }, 'reschedule'],
    ['Add a class', 'sections', { shows: 'classes' }, 'extra class'],
    ['Change the timetable', 'sections', { shows: 'timetable' }, 'meets periods times'],
    ['Have students join', 'sections', { shows: 'students' }, 'enrol add class list roster'],
    ['Move students to another section', 'sections', { shows: 'students' }, 'transfer swap change'],
    ['Excuse, or give more time', 'sections', { shows: 'students' }, 'extension exception extra open'],
    ['Put students in groups', 'sections', { shows: 'groups' }, 'group for whom'],
    ['Change the order for a section', 'sections', { shows: 'lessons' }, 'drop keep back fix to a date longer shorter'],
    ['Export scores', 'scores', {}, 'marks grades spreadsheet excel csv results'],
    ['Set dates', 'dates', {}, 'due opens deadline extend'],
    ['Paste dates from a spreadsheet', 'dates', {}, 'csv excel'],
    [`Add ${unit.a}`, 'outline', { do: 'add' }, 'new'],
    [`Publish ${item.many}`, 'outline', {}, 'release show hide unpublish'],
    ['Add a section', 'joining', {}, 'join connect follow'],
    ['Have a section stop following', 'sections', {}, 'leave disconnect split own'],
    ['Course settings', 'outline', { do: 'settings' }, 'numbers codes listed unseen names levels'],
    ['Add somebody to the team', 'team', {}, 'co-teacher invite colleague reader lead share'],
    ['Roll over into the next term', 'editions', {}, 'next edition copy year'],
    ['Export the course', 'editions', {}, 'file package plan download share'],
    ['Import a course', 'editions', {}, 'file package upload'],
    ['End this edition', 'editions', {}, 'close archive past'],
  ] as const

/** Everything in a course that can be found. */
export function findsOf(
  edition: number,
  levels: Levels,
  outline: Schemas['OutlineAnswer'] | undefined,
  people: Schemas['LensAnswer'] | undefined,
): Find[] {
  const params = { edition }
  const items: Find[] = (outline?.units ?? []).flatMap((unit) => {
    const open = (level: string, id: number) => ({ name: 'outline', params, query: { row: `${level}-${id}` } })
    const itemOf = (item: Schemas['OutlineItem'], lesson: string): Find => ({
      kind: 'item',
      code: item.code,
      title: item.title,
      note: [item.kind, lesson, unit.title].filter(Boolean).join(' · '),
      to: open('item', item.id),
    })
    return [
      {
        kind: 'group' as const,
        code: unit.number === null ? '' : `${unit.number}`,
        title: unit.title,
        note: levels.unit.one,
        to: open('unit', unit.id),
      },
      ...unit.lessons.flatMap((lesson) => [
        {
          kind: 'group' as const,
          title: lesson.title,
          note: `${levels.lesson.one} · ${unit.title}`,
          to: open('lesson', lesson.id),
        },
        ...lesson.items.map((item) => itemOf(item, lesson.title)),
      ]),
      ...unit.items.map((item) => itemOf(item, '')),
    ]
  })
  const sections: Find[] = (outline?.sections ?? []).map((section) => ({
    kind: 'section',
    title: section.name,
    note: section.students === 1 ? '1 student' : `${section.students} students`,
    to: { name: 'sections', params, query: { section: section.id } },
  }))
  const students: Find[] = (people?.sections ?? []).flatMap((section) =>
    section.students.map((student) => ({
      kind: 'student' as const,
      title: student.name,
      note: section.name,
      to: { name: 'one-student', params: { edition, student: student.id }, query: { section: section.section } },
    })),
  )
  return [
    ...SCREENS.map(([name, title, note]) => ({ kind: 'screen' as const, title, note, to: { name, params } })),
    ...actsOf(levels).map(([title, name, query, more]) => ({
      kind: 'act' as const,
      title,
      note: SCREENS.find((screen) => screen[0] === name)?.[1] ?? 'Outline',
      more,
      to: { name, params, query },
    })),
    ...sections,
    ...items,
    ...students,
  ]
}

/** Those of which every written word is found, the nearest first. */
export function found(all: readonly Find[], written: string, most = 12): { shown: Find[]; others: number } {
  const words = written.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return { shown: all.filter((one) => one.kind === 'screen'), others: 0 }
  const hits = all
    .map((one, place) => ({ one, place, score: scoreOf(one, words) }))
    .filter(({ score }) => score > 0)
    .sort((a, b) => b.score - a.score || a.place - b.place)
    .map(({ one }) => one)
  return { shown: hits.slice(0, most), others: Math.max(0, hits.length - most) }
}

// A code or title that begins so comes before one in which a word does, and that before whatever has it somewhere.
function scoreOf({ code, title, note, more }: Find, words: string[]): number {
  const [name, rest] = [`${code ?? ''} ${title}`.trim().toLowerCase(), `${note} ${more ?? ''}`.toLowerCase()]
  if (!words.every((word) => name.includes(word) || rest.includes(word))) return 0
  const first = words[0]!
  if (code?.toLowerCase() === first) return 6
  if (code?.toLowerCase().startsWith(first) || title.toLowerCase().startsWith(first)) return 5
  if (words.every((word) => ` ${name}`.includes(` ${word}`))) return 4
  if (words.every((word) => name.includes(word))) return 3
  return words.some((word) => name.includes(word)) ? 2 : 1
}
