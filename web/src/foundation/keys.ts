/** The keys under which answers are kept. What depends on the viewpoint has it in its key. */
export const keys = {
  places: ['places'] as const,
  edition: (edition: number) => ['edition', edition] as const,
  /** Whatever is read of an edition from a viewpoint: `outline`, `dates` … */
  ofEdition: (edition: number, what: string, viewpoint: string) => ['edition', edition, what, viewpoint] as const,
  history: (of: 'edition' | 'term', id: number) => [of, id, 'history'] as const,
  term: (term: number) => ['term', term] as const,
  rosterFeed: (term: number) => ['term', term, 'roster-feed'] as const,
  rosters: (term: number) => ['term', term, 'rosters'] as const,
  calendar: (term: number) => ['term', term, 'calendar'] as const,
  termAhead: (term: number, years: number, first: string | null) => ['term', term, 'ahead', years, first] as const,
  section: (section: number) => ['section', section] as const,
  /** Whatever a student sees of a section from a viewpoint. */
  ofSection: (section: number, what: string, viewpoint: string) => ['section', section, what, viewpoint] as const,
  sectionCodes: (section: number) => ['section', section, 'codes'] as const,
  people: ['people'] as const,
  outcomes: ['outcomes'] as const,
  record: (of: string, person: number | null, skip: number) => ['people', 'record', of, person, skip] as const,
  account: ['account'] as const,
  room: ['room'] as const,
  begin: (token: string) => ['begin', token] as const,
  welcome: (token: string) => ['welcome', token] as const,
  calendarLinks: ['calendar-links'] as const,
  provider: ['provider'] as const,
  demoPeople: ['demo-people'] as const,
  demoMail: ['demo-mail'] as const,
  demoClock: ['demo-clock'] as const,
}
