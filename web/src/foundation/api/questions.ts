import { queryOptions } from '@tanstack/vue-query'
import { api, ask } from './client'
import { keys } from '../keys'

/** The moment and the eyes of a question, as they stand in the address; empty: one's own, now. */
export interface View {
  at?: string
  as?: string
}

/** A question to the server: how it is asked, and the key its answer is kept under. */
export interface Question<T> {
  queryKey: readonly unknown[]
  queryFn: (context: { signal: AbortSignal }) => Promise<T>
}

type Asked<T> = (signal: AbortSignal) => Promise<{ data?: T; error?: unknown; response: Response }>

// Given up as soon as nobody waits for the answer any more.
const question = <T>(queryKey: readonly unknown[], get: Asked<T>): Question<T> =>
  queryOptions({ queryKey, queryFn: ({ signal }) => ask(get(signal)) }) as unknown as Question<T>

const keyOf = (view: View) => new URLSearchParams({ ...view }).toString()

/** What is asked of an edition from a viewpoint, under the name that the address has for it. */
const ofEdition =
  <T>(
    what: string,
    get: (of: { params: { path: { edition: number }; query: View }; signal: AbortSignal }) => ReturnType<Asked<T>>,
  ) =>
  (edition: number, view: View = {}) =>
    question<T>(keys.ofEdition(edition, what, keyOf(view)), (signal) =>
      get({ params: { path: { edition }, query: view }, signal }),
    )

/** Everything that is read from the server: each question once, with the key its answer is kept under. */
export const questions = {
  places: () => question(keys.places, (signal) => api.GET('/api/places', { signal })),
  outcomes: () => question(keys.outcomes, (signal) => api.GET('/api/school/outcomes', { signal })),
  courseOutcomes: (edition: number) =>
    question(keys.ofEdition(edition, 'outcomes', ''), (signal) =>
      api.GET('/api/editions/{edition}/outcomes', { params: { path: { edition } }, signal }),
    ),
  unit: (edition: number, unit: number, view: View) =>
    question(keys.ofEdition(edition, `unit ${unit}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/units/{unit}', {
        params: { path: { edition, unit }, query: { ...view } },
        signal,
      }),
    ),
  studentUnit: (section: number, unit: number, view: View = {}) =>
    question(keys.ofSection(section, `unit ${unit}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/units/{unit}', { params: { path: { section, unit }, query: view }, signal }),
    ),
  people: () => question(keys.people, (signal) => api.GET('/api/people', { signal })),
  record: (of: string, person: number | null, skip: number) =>
    question(keys.record(of, person, skip), (signal) =>
      api.GET('/api/people/record', { params: { query: { of, person: person ?? undefined, skip } }, signal }),
    ),
  room: () => question(keys.room, (signal) => api.GET('/api/me/room', { signal })),
  account: () => question(keys.account, (signal) => api.GET('/api/account', { signal })),
  begin: (token: string) =>
    question(keys.begin(token), (signal) => api.GET('/api/begin/{token}', { params: { path: { token } }, signal })),
  welcome: (token: string) =>
    question(keys.welcome(token), (signal) => api.GET('/api/welcome/{token}', { params: { path: { token } }, signal })),
  calendarLinks: () => question(keys.calendarLinks, (signal) => api.GET('/api/calendar-links', { signal })),
  provider: () => question(keys.provider, (signal) => api.GET('/api/sign-in/provider', { signal })),
  demoPeople: () => question(keys.demoPeople, (signal) => api.GET('/api/demo/people', { signal })),
  demoMail: () => question(keys.demoMail, (signal) => api.GET('/api/demo/mail', { signal })),
  demoClock: () => question(keys.demoClock, (signal) => api.GET('/api/demo/clock', { signal })),

  ribbon: ofEdition('ribbon', (of) => api.GET('/api/editions/{edition}/ribbon', of)),
  today: ofEdition('today', (of) => api.GET('/api/editions/{edition}/today', of)),
  checks: ofEdition('checks', (of) => api.GET('/api/editions/{edition}/checks', of)),
  outline: ofEdition('outline', (of) => api.GET('/api/editions/{edition}/outline', of)),
  dates: ofEdition('dates', (of) => api.GET('/api/editions/{edition}/dates', of)),
  work: ofEdition('work', (of) => api.GET('/api/editions/{edition}/work', of)),
  handedIn: ofEdition('handed-in', (of) => api.GET('/api/editions/{edition}/handed-in', of)),
  scores: ofEdition('scores', (of) => api.GET('/api/editions/{edition}/scores', of)),
  studentTotal: (edition: number, student: number, view: View = {}) =>
    question(keys.ofEdition(edition, `total ${student}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/students/{student}/total', {
        params: { path: { edition, student }, query: view },
        signal,
      }),
    ),
  questionsOf: (edition: number, item: number, view: View = {}) =>
    question(keys.ofEdition(edition, `questions ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/questions', {
        params: { path: { edition, item }, query: view },
        signal,
      }),
    ),
  ownScores: (section: number, view: View = {}) =>
    question(keys.ofSection(section, 'scores', keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/scores', { params: { path: { section }, query: view }, signal }),
    ),
  pace: ofEdition('pace', (of) => api.GET('/api/editions/{edition}/pace', of)),
  sections: ofEdition('sections', (of) => api.GET('/api/editions/{edition}/sections', of)),
  editions: ofEdition('editions', (of) => api.GET('/api/editions/{edition}/editions', of)),
  ready: (edition: number, section: number, of: { term: boolean; perDay: number }, view: View = {}) =>
    question(keys.ofEdition(edition, `ready ${section}`, `${JSON.stringify(of)} ${keyOf(view)}`), (signal) =>
      api.GET('/api/editions/{edition}/ready/{section}', {
        params: { path: { edition, section }, query: { ...of, ...view } },
        signal,
      }),
    ),
  conditions: ofEdition('conditions', (of) => api.GET('/api/editions/{edition}/conditions', of)),
  askable: (edition: number) =>
    question(keys.ofEdition(edition, 'askable', ''), (signal) =>
      api.GET('/api/editions/{edition}/askable', { params: { path: { edition } }, signal }),
    ),
  scoresReached: (edition: number, item: number, by: { latest: boolean; latched: boolean }, view: View = {}) =>
    question(keys.ofEdition(edition, `scores-reached ${item}`, `${JSON.stringify(by)} ${keyOf(view)}`), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/scores-reached', {
        params: { path: { edition, item }, query: { ...by, ...view } },
        signal,
      }),
    ),
  groups: ofEdition('groups', (of) => api.GET('/api/editions/{edition}/groups', of)),
  joinable: ofEdition('joinable', (of) => api.GET('/api/editions/{edition}/joinable', of)),
  joinCheck: (edition: number, section: number, from: string) =>
    question(keys.ofEdition(edition, `join-check ${section}`, from), (signal) =>
      api.GET('/api/editions/{edition}/join-check', {
        params: { path: { edition }, query: { section, from } },
        signal,
      }),
    ),
  team: (edition: number) =>
    question(keys.ofEdition(edition, 'team', ''), (signal) =>
      api.GET('/api/editions/{edition}/team', { params: { path: { edition } }, signal }),
    ),
  classLists: ofEdition('class-lists', (of) => api.GET('/api/editions/{edition}/class-lists', of)),
  students: ofEdition('students', (of) => api.GET('/api/editions/{edition}/students', of)),
  oneStudent: (edition: number, student: number, view: View = {}) =>
    question(keys.ofEdition(edition, `student ${student}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/students/{student}', {
        params: { path: { edition, student }, query: view },
        signal,
      }),
    ),
  datePath: (edition: number, item: number, section: number, view: View = {}) =>
    question(keys.ofEdition(edition, `dates of ${item} ${section}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/date-path/{section}', {
        params: { path: { edition, item, section }, query: view },
        signal,
      }),
    ),
  whoCan: (edition: number, item: number, view: View = {}) =>
    question(keys.ofEdition(edition, `who can ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/who-can', {
        params: { path: { edition, item }, query: view },
        signal,
      }),
    ),
  why: (edition: number, student: number, item: number, view: View = {}) =>
    question(keys.ofEdition(edition, `why ${student} ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/students/{student}/items/{item}/why', {
        params: { path: { edition, student, item }, query: view },
        signal,
      }),
    ),
  catchUp: (edition: number, student: number, perClass: number, leave: readonly number[]) =>
    question(keys.ofEdition(edition, `catch-up ${student}`, `${perClass} ${leave.join(',')}`), (signal) =>
      api.GET('/api/editions/{edition}/students/{student}/catch-up', {
        params: { path: { edition, student }, query: { perClass, leave: leave.join(',') } },
        signal,
      }),
    ),
  move: (edition: number, student: number, to: { from: number; to: number; on: string; choices: string }) =>
    question(keys.ofEdition(edition, `move ${student}`, JSON.stringify(to)), (signal) =>
      api.GET('/api/editions/{edition}/students/{student}/move', {
        params: { path: { edition, student }, query: to },
        signal,
      }),
    ),
  drawGroups: (edition: number, draw: { section: number; size: number; apart: string; seed: number }) =>
    question(keys.ofEdition(edition, `draw ${draw.section}`, JSON.stringify(draw)), (signal) =>
      api.GET('/api/editions/{edition}/draw-groups', { params: { path: { edition }, query: draw }, signal }),
    ),
  sectionCodes: (section: number) =>
    question(keys.sectionCodes(section), (signal) =>
      api.GET('/api/sections/{section}/codes', { params: { path: { section } }, signal }),
    ),
  item: (edition: number, item: number) =>
    question(keys.ofEdition(edition, `item ${item}`, ''), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}', { params: { path: { edition, item } }, signal }),
    ),
  versions: (edition: number, item: number, student: number, view: View) =>
    question(keys.ofEdition(edition, `versions ${item} ${student}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/students/{student}/versions', {
        params: { path: { edition, item, student }, query: { ...view } },
        signal,
      }),
    ),
  remarks: (edition: number, item: number, view: View) =>
    question(keys.ofEdition(edition, `remarks ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/remarks', {
        params: { path: { edition, item }, query: { ...view } },
        signal,
      }),
    ),
  notes: (edition: number) =>
    question(keys.ofEdition(edition, 'notes', ''), (signal) =>
      api.GET('/api/editions/{edition}/notes', { params: { path: { edition } }, signal }),
    ),
  history: (edition: number) =>
    question(keys.history('edition', edition), (signal) =>
      api.GET('/api/editions/{edition}/history', { params: { path: { edition } }, signal }),
    ),

  calendar: (term: number) =>
    question(keys.calendar(term), (signal) =>
      api.GET('/api/terms/{term}/calendar', { params: { path: { term } }, signal }),
    ),
  rosterFeed: (term: number) =>
    question(keys.rosterFeed(term), (signal) =>
      api.GET('/api/terms/{term}/roster-feed', { params: { path: { term } }, signal }),
    ),
  rosters: (term: number) =>
    question(keys.rosters(term), (signal) =>
      api.GET('/api/terms/{term}/rosters', { params: { path: { term } }, signal }),
    ),
  termAhead: (term: number, years: number, first: string | null) =>
    question(keys.termAhead(term, years, first), (signal) =>
      api.GET('/api/terms/{term}/ahead', {
        params: { path: { term }, query: { years, ...(first && { first }) } },
        signal,
      }),
    ),
  termHistory: (term: number) =>
    question(keys.history('term', term), (signal) =>
      api.GET('/api/terms/{term}/history', { params: { path: { term } }, signal }),
    ),

  now: (section: number, view: View = {}) =>
    question(keys.ofSection(section, 'now', keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/now', { params: { path: { section }, query: view }, signal }),
    ),
  search: (edition: number, words: string) =>
    question(keys.ofEdition(edition, `search ${words}`, ''), (signal) =>
      api.GET('/api/editions/{edition}/search', { params: { path: { edition }, query: { words } }, signal }),
    ),
  studentSearch: (section: number, words: string, view: View = {}) =>
    question(keys.ofSection(section, `search ${words}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/search', { params: { path: { section }, query: { words, ...view } }, signal }),
    ),
  sheet: (section: number, item: number, view: View = {}) =>
    question(keys.ofSection(section, `sheet ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}/sheet', {
        params: { path: { section, item }, query: view },
        signal,
      }),
    ),
  sheetBlock: (section: number, item: number, block: number, view: View = {}) =>
    question(keys.ofSection(section, `sheet ${item} ${block}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}/sheet/{block}', {
        params: { path: { section, item, block }, query: view },
        signal,
      }),
    ),
  quiz: (edition: number, item: number) =>
    question(keys.ofEdition(edition, `quiz ${item}`, ''), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/quiz', { params: { path: { edition, item } }, signal }),
    ),
  missing: (edition: number, section: number, view: View = {}) =>
    question(keys.ofEdition(edition, `missing ${section}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/missing', { params: { path: { section }, query: view }, signal }),
    ),
  rubric: (edition: number, item: number) =>
    question(keys.ofEdition(edition, `rubric ${item}`, ''), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/rubric', { params: { path: { edition, item } }, signal }),
    ),
  rubrics: (edition: number) =>
    question(keys.ofEdition(edition, 'rubrics', ''), (signal) =>
      api.GET('/api/editions/{edition}/rubrics', { params: { path: { edition } }, signal }),
    ),
  studentItem: (section: number, item: number, view: View = {}) =>
    question(keys.ofSection(section, `item ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}', { params: { path: { section, item }, query: view }, signal }),
    ),
  ownWhy: (section: number, item: number, view: View = {}) =>
    question(keys.ofSection(section, `why ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}/why', {
        params: { path: { section, item }, query: view },
        signal,
      }),
    ),
  offer: (section: number, item: number, view: View = {}) =>
    question(keys.ofSection(section, `offer ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}/offer', {
        params: { path: { section, item }, query: view },
        signal,
      }),
    ),
  picks: (edition: number, item: number, view: View = {}) =>
    question(keys.ofEdition(edition, `picks ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/editions/{edition}/items/{item}/picks', {
        params: { path: { edition, item }, query: view },
        signal,
      }),
    ),
  studentQuiz: (section: number, item: number, view: View = {}) =>
    question(keys.ofSection(section, `quiz ${item}`, keyOf(view)), (signal) =>
      api.GET('/api/sections/{section}/items/{item}/quiz', {
        params: { path: { section, item }, query: view },
        signal,
      }),
    ),
}
