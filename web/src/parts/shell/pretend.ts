/** A student who is made up for looking: of a section, with what is made out to have happened. */
export interface Pretend {
  section: number
  facts: PretendFact[]
}

export interface PretendFact {
  item: number
  what: string
  /** The score in percent, or the option of a choice. */
  value?: string
}

/** Reads it from the address; null: one looks through other eyes. */
export function pretendOf(eyes: unknown): Pretend | null {
  if (typeof eyes !== 'string') return null
  const [head, ...facts] = eyes.split('~')
  const [kind, section] = head!.split(':')
  if (kind !== 'pretend' && kind !== 'section') return null
  return {
    section: Number(section),
    facts: facts.map((fact) => {
      const [item, what, ...value] = fact.split('.')
      return { item: Number(item), what: what!, ...(value.length > 0 && { value: value.join('.') }) }
    }),
  }
}

/** As it stands in the address. */
export const eyesOf = ({ section, facts }: Pretend): string =>
  [`pretend:${section}`, ...(facts.length > 0 ? [factsOf(facts)] : [])].join('~')

/** What is made out to have happened, as it is kept. */
export const factsOf = (facts: readonly PretendFact[]): string =>
  facts.map(({ item, what, value }) => `${item}.${what}${value === undefined ? '' : `.${value}`}`).join('~')

/** What can be made out to have happened with an item of a kind, in the order of the work. */
export function deedsOf(kind: string): { what: string; words: string }[] {
  const all = [
    { what: 'opened', words: 'opened', kinds: ['page', 'link', 'handout', 'discussion'] },
    { what: 'ticked', words: 'ticked off', kinds: ['page', 'link', 'handout'] },
    { what: 'handed-in', words: 'handed in', kinds: ['task'] },
    { what: 'given-back', words: 'given back: go on', kinds: ['task', 'discussion'] },
    { what: 'again', words: 'given back: try again', kinds: ['task'] },
    { what: 'score', words: 'scored', kinds: ['quiz', 'task'] },
    { what: 'picked', words: 'picked', kinds: ['choice'] },
  ]
  return all.filter((deed) => deed.kinds.includes(kind))
}
