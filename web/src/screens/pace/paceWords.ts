import type { Schemas } from '../../foundation/api/client'
import { counted } from '../../foundation/words'

/** Where a section stands, in words: against the plan, against the edition before, and whether it fits. */
export function standing(section: Schemas['PaceSection'], unit: string): string {
  if (section.ended) return `ended ${section.ended}`
  const { lacking } = section
  const over = section.atLesson === null
  if (over && lacking === 0) return 'through'
  // Once its classes are over it is behind nothing any more.
  const [plan, last] = over ? [null, null] : [section.behindBy, section.behindLast]
  const classes = (n: number) => counted(n, 'class', 'classes')
  // What is counted is named once.
  const fewer = (n: number) => (plan ? `${n}` : classes(n))
  const now = [
    over ? 'over' : !plan ? 'on plan' : `${classes(Math.abs(plan))} ${plan > 0 ? 'behind' : 'ahead'}`,
    ...(!last ? [] : [last > 0 ? `${fewer(last)} behind last time` : `${fewer(-last)} ahead of last time`]),
  ].join(', ')
  if (lacking === 0) return now
  const short = unit === 'classes' ? classes(lacking) : counted(lacking, 'minute')
  return over ? `over, ${short} short` : `${now}${plan || last ? '' : ' so far'}; will run ${short} short`
}

/** What a lesson of a section is, exactly. */
export function readoutOf(
  section: Schemas['PaceSection'],
  run: Schemas['PaceRun'],
  lesson: Schemas['PaceLesson'],
  withLast: boolean,
): string {
  const [day, time] = run.ends?.words.split(', ') ?? []
  const when = !run.starts
    ? 'does not fit'
    : run.starts.words.startsWith(`${day},`)
      ? `${run.starts.words}–${time}`
      : `${run.starts.words} to ${run.ends!.words}`
  const state = { taught: ', taught', begun: ', not finished' }[run.state] ?? ''
  const last = run.last && withLast ? `; last time ${run.last}` : ''
  return `${section.name}: ${lesson.code} ${lesson.title}, ${run.classes}, ${when}${state}${last}`
}
