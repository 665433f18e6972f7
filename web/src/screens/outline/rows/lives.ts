import type { Schemas } from '../../../foundation/api/client'
import type { Row } from '../outlineRows'

/** What becomes of a row in one section: a stretch of the term, from where it opens or begins to where it is due or ends. */
export interface Life {
  letter: string
  name: string
  /** Days from the Monday of the term's first week. */
  from: number | null
  to: number | null
  /** It has opened, or begun. */
  open: boolean
  held: boolean
  differs: boolean
  /** The same in words. */
  words: string
  /** The dates alone, short. */
  dates: string
}

const DAY = 86_400_000
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** Where a local moment, `2026-10-08T10:15:00`, stands on the term's strip. */
export const placeOf = (local: string, origin: string) =>
  (Date.parse(`${local}Z`) - Date.parse(`${origin}T00:00:00Z`)) / DAY

const short = (local: string | undefined) =>
  local ? `${Number(local.slice(8, 10))} ${MONTHS[Number(local.slice(5, 7)) - 1]}` : ''

/** The lives of every item, by its row's key, in the order of the sections. */
export function livesOfItems(dates: Schemas['DatesAnswer'], origin: string, now: number): Map<string, Life[]> {
  const place = (moment: Schemas['Moment'] | null) => (moment ? placeOf(moment.local, origin) : null)
  return new Map(
    dates.units.flatMap((unit) =>
      unit.items.map((row) => [
        `item-${row.item}`,
        row.cells.map((cell, n) => {
          const section = dates.sections[n]!
          const [from, to] = cell.skipped || cell.absent ? [null, null] : [place(cell.opens), place(cell.due)]
          return {
            letter: section.letter,
            name: section.name,
            from,
            to,
            open: cell.hasOpened || (from !== null && from <= now && row.published),
            held: cell.held,
            differs: cell.differs.length > 0,
            words: `${section.name} ${wordsOf(cell)}`,
            dates: cell.absent
              ? ''
              : cell.skipped
                ? 'dropped'
                : [short(cell.opens?.local), cell.due ? `due ${short(cell.due.local)}` : '']
                    .filter(Boolean)
                    .join(' · ') || (row.published ? 'open' : 'no date'),
          }
        }),
      ]),
    ),
  )
}

function wordsOf(cell: Schemas['DatesCell']): string {
  if (cell.absent) return 'does not have it'
  if (cell.skipped) return 'drops it'
  const opens = cell.opens ? `opens ${cell.opens.words}` : 'has no opening date'
  return [cell.held ? 'keeps it back,' : '', cell.due ? `${opens}, due ${cell.due.words}` : opens]
    .filter(Boolean)
    .join(' ')
}

/** The lives of every lesson and unit: from the first class it takes to the end of the last. */
export function livesOfLessons(
  pace: Schemas['PaceAnswer'],
  rows: readonly Row[],
  origin: string,
  now: number,
): Map<string, Life[]> {
  const runs = pace.sections.map((section) => new Map(section.lessons.map((run) => [run.lesson, run])))
  const lifeOf = (lessons: readonly number[], n: number): Life => {
    const section = pace.sections[n]!
    const here = lessons.flatMap((lesson) => runs[n]!.get(lesson) ?? [])
    const placed = here.filter((run) => !run.skipped && run.starts && run.ends)
    const [first, last] = [placed[0]?.starts, placed.at(-1)?.ends]
    const [from, to] = [first ? placeOf(first.local, origin) : null, last ? placeOf(last.local, origin) : null]
    return {
      letter: section.letter,
      name: section.name,
      from,
      to,
      open: from !== null && from <= now,
      held: false,
      differs: false,
      words: first && last ? `${section.name} ${first.words} to ${last.words}` : `${section.name} has no class for it`,
      dates: first && last ? [...new Set([short(first.local), short(last.local)])].join(' – ') : 'no class',
    }
  }
  return new Map(
    rows.flatMap((row) => {
      if (row.level === 'item') return []
      const lessons = row.level === 'lesson' ? [row.lesson.id] : row.unit.lessons.map((lesson) => lesson.id)
      return [[row.key, pace.sections.map((_, n) => lifeOf(lessons, n))] as const]
    }),
  )
}

/** Where many sections follow: the stretch in which any of them has it, and those that differ. */
export function bandOf(
  lives: readonly Life[],
): { from: number; to: number; opens: number[]; open: number; differs: Life[] } | null {
  const placed = lives.filter((life) => life.from !== null)
  if (placed.length === 0) return null
  const ends = placed.map((life) => Math.max(life.from!, life.to ?? life.from!))
  return {
    from: Math.min(...placed.map((life) => life.from!)),
    to: Math.max(...ends),
    opens: placed.map((life) => life.from!),
    open: placed.filter((life) => life.open).length,
    differs: placed.filter((life) => life.differs || life.held),
  }
}

/** The moment and the closures as backgrounds of a row's right half, in the custom properties that its style reads. */
export function groundOf({
  days,
  closures,
  momentAt,
}: Pick<Schemas['RibbonAnswer'], 'days' | 'closures' | 'momentAt'>) {
  // A background's place in percent counts what is left beside it.
  const at = (place: number, wide: number) => `${((100 * place) / (days - wide)).toFixed(2)}% 0`
  const closed = closures.map(({ from, to }) => ({ at: at(from, to - from), wide: (100 * (to - from)) / days }))
  return {
    '--ground': [
      'linear-gradient(var(--accent), var(--accent))',
      ...closed.map(() => 'repeating-linear-gradient(135deg, transparent 0 4px, var(--hair) 4px 5px)'),
    ].join(','),
    '--ground-at': [at(momentAt, 0), ...closed.map((one) => one.at)].join(','),
    '--ground-size': ['1px 100%', ...closed.map(({ wide }) => `${wide.toFixed(2)}% 100%`)].join(','),
  }
}
