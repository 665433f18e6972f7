import type { Schemas } from '../../../foundation/api/client'
import type { Row } from '../outlineRows'

type Pace = Schemas['PaceAnswer']

/** When a lesson, or the first to the last of a unit, falls in each section. */
export function fallsOf(pace: Pace, row: Exclude<Row, { level: 'item' }>) {
  const lessons = row.level === 'lesson' ? [row.lesson] : row.unit.lessons
  const ids = new Set(lessons.map((lesson) => lesson.id))
  return pace.sections.map((section) => {
    const runs = section.lessons.filter((run) => ids.has(run.lesson))
    const taught = runs.filter((run) => !run.skipped)
    const placed = taught.filter((run) => run.starts && run.ends)
    const [first, last] = [placed[0], placed.at(-1)]
    const lacking = taught.length - placed.filter((run) => run.overflow === 0).length
    const whole =
      row.level === 'unit'
        ? lacking === 0
          ? 'whole'
          : lacking === taught.length
            ? 'none of it'
            : `all but ${lacking} of ${taught.length}`
        : [first?.classes, ...(first && lacking ? ['not whole'] : [])].filter(Boolean).join(', ')
    return {
      letter: section.letter,
      name: section.name,
      cells: [
        first?.starts?.words ??
          (runs.length === 0 ? 'not here' : taught.length === 0 ? 'dropped here' : 'does not fit'),
        last?.ends?.words ?? '–',
        taught.length === 0 ? '–' : whole || '–',
      ],
      differs: lessons.some((lesson) => lesson.differs.includes(section.letter)),
    }
  })
}
