import type { Schemas } from '../../foundation/api/client'

/** Where a section stands, in words: against the plan, against the edition before, and whether it fits. */
export function standing(section: Schemas['PaceSection'], unit: string): string {
  const { lacking } = section
  const over = section.atLesson === null
  if (over && lacking === 0) return 'through'
  // Once its classes are over it is behind nothing any more.
  const [plan, last] = over ? [null, null] : [section.behindBy, section.behindLast]
  // What is counted is named once.
  const classes = (n: number) => (plan ? `${n}` : n === 1 ? '1 class' : `${n} classes`)
  return [
    over
      ? 'over'
      : !plan
        ? 'on plan'
        : `${Math.abs(plan) === 1 ? '1 class' : `${Math.abs(plan)} classes`} ${plan > 0 ? 'behind' : 'ahead'}`,
    ...(!last ? [] : [last > 0 ? `${classes(last)} behind last time` : `${classes(-last)} ahead of last time`]),
    ...(lacking > 0
      ? [`${unit === 'classes' ? (plan || last ? lacking : classes(lacking)) : `${lacking} minutes`} too few`]
      : []),
  ].join(', ')
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
