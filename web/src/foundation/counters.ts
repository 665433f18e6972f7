/** As of which counters answers were, by what they are of: `editions/2`. */
const seen = new Map<string, Set<string>>()

/** Takes note of the counters that an answer names. */
export function noteCounters(response: Response): void {
  const counters = response.headers.get('Polycline-Counters')
  const of = /\/api\/((?:editions|terms)\/\d+)\//.exec(response.url)?.[1]
  if (counters && of) seen.set(of, (seen.get(of) ?? new Set()).add(counters))
}

/** Whether any answer was as of other counters than these, which stand there now; from here on these are what was seen. */
export function hasMissed(of: 'edition' | 'term', id: number, counters: string): boolean {
  const known = seen.get(`${of}s/${id}`)
  seen.set(`${of}s/${id}`, new Set([counters]))
  return !known || [...known].some((one) => one !== counters)
}
