import type { Schemas } from '../../../foundation/api/client'

/** A question as a row of fields. */
export type QuestionForm = Schemas['QuestionForm']
/** How a quiz is taken, with everything said. */
export type WrittenRules = Required<Schemas['QuizRules']>
export const usualRules = (): WrittenRules => ({
  limit: null,
  attempts: 1,
  using: 'best',
  shown: 'at-once',
  outOf: null,
  mixesQuestions: false,
  mixesOptions: false,
  scoreShown: 'at-once',
})

/** When something of a quiz is shown, from soonest to latest. */
export const WHEN_SHOWN = [
  { value: 'at-once', title: 'at once' },
  { value: 'after-due', title: 'once it is past its due date' },
  { value: 'never', title: 'never' },
] as const
const placeOf = (when: string) => WHEN_SHOWN.findIndex(({ value }) => value === when)

/** When the score can be shown: the answers tell it, so no later than they are. */
export const scoreTimes = (rules: WrittenRules) => WHEN_SHOWN.slice(0, 1 + placeOf(rules.shown))

/** Sets when the answers are shown. The score goes with them, unless it was set apart and can stay so. */
export function showAnswers(rules: WrittenRules, when: string): void {
  const score = rules.scoreShown ?? rules.shown
  if (score === rules.shown || placeOf(score) > placeOf(when)) rules.scoreShown = when
  rules.shown = when
}
export type AnswerForm = Schemas['AnswerForm']

/** What kinds of questions there are, as one chooses among them. */
export const KINDS = [
  { value: 'one', title: 'one of several' },
  { value: 'many', title: 'several of several' },
  { value: 'truth', title: 'true or false' },
  { value: 'number', title: 'a number' },
  { value: 'text', title: 'a short text' },
  { value: 'order', title: 'putting in order' },
  { value: 'match', title: 'matching' },
  { value: 'gaps', title: 'gaps in the text' },
  { value: 'free', title: 'a text that you read' },
  { value: 'file', title: 'a file that you look at' },
] as const

/** What becomes of a question: it counts, or it is faulty. */
export const FAULTY = [
  { value: '', title: 'it counts' },
  { value: 'full points', title: 'faulty: everyone gets its points' },
  { value: 'left out', title: 'faulty: as if it had not been asked' },
] as const

const freshAnswer = (isRight = false): AnswerForm => ({ words: '', match: '', isRight, reply: '' })

/** A question as it begins: like the one before it, without its words. */
export const freshQuestion = (before?: QuestionForm): QuestionForm => ({
  html: '',
  kind: before?.kind ?? 'one',
  answers: [freshAnswer(true), freshAnswer(), freshAnswer()],
  right: '',
  wrong: '',
  slips: 0,
  capitalsCount: false,
  accentsCount: true,
  allOrNothing: false,
  inThisOrder: false,
  points: before?.points ?? 1,
  isExtra: false,
  faulty: '',
  hint: '',
  after: '',
  beginsPage: false,
  draw: 0,
  drawOf: 0,
})

export const addAnswer = (question: QuestionForm): unknown => question.answers.push(freshAnswer())

/** Of one kind made another; what was written stays as far as it has a place there. */
export function turnInto(question: QuestionForm, kind: string): void {
  question.kind = kind
  if (question.answers.length === 0) question.answers = [freshAnswer(true), freshAnswer(), freshAnswer()]
  if (kind === 'one')
    onlyRight(
      question,
      Math.max(
        0,
        question.answers.findIndex((answer) => answer.isRight),
      ),
    )
  if (kind === 'truth' && !/^(true|false)$/.test(question.right)) question.right = 'true'
}

/** This answer is right, and no other. */
export const onlyRight = (question: QuestionForm, at: number): void =>
  question.answers.forEach((answer, place) => (answer.isRight = place === at))

/** Takes a question to another place, or out (null); a draw goes on with the questions it has left. */
export function moveQuestion(rows: QuestionForm[], at: number, to: number | null): void {
  const first =
    to === null ? rows.findIndex(({ draw, drawOf }, from) => draw > 0 && from <= at && at < from + drawOf) : -1
  const drawn = rows[first]
  const [moved] = rows.splice(at, 1)
  if (moved && to !== null) rows.splice(to, 0, moved)
  const goesOn = drawn && drawn.drawOf > 1 ? (at === first ? rows[at] : drawn) : undefined
  if (drawn && goesOn) {
    goesOn.drawOf = drawn.drawOf - 1
    goesOn.draw = Math.min(drawn.draw, goesOn.drawOf)
  }
}

const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim()

function answersOf({ kind, answers, right, wrong, ...more }: QuestionForm): string[] {
  const said = answers.map(({ words, match, isRight, reply }) => ({
    words: oneLine(words),
    match: oneLine(match),
    isRight,
    reply: oneLine(reply ?? ''),
  }))
  const written = said.filter(({ words }) => words !== '')
  switch (kind) {
    case 'one':
    case 'many':
      return [
        ...written.flatMap(({ words, isRight, reply }) => [
          `${isRight ? '+' : '-'} ${words}`,
          ...(reply ? [`> ${reply}`] : []),
        ]),
        ...(kind === 'many' && written.filter(({ isRight }) => isRight).length < 2 ? ['any number'] : []),
      ]
    case 'truth':
      return [right === 'false' ? 'false' : 'true']
    case 'number':
      return [`number: ${oneLine(right)}`]
    case 'text':
      return [
        `text: ${oneLine(right)}`,
        ...(oneLine(wrong) ? [`not: ${oneLine(wrong)}`] : []),
        ...(more.capitalsCount ? ['capitals count'] : []),
        ...(more.accentsCount ? [] : ['accents do not count']),
        ...(more.slips ? [`slips: ${more.slips}`] : []),
      ]
    case 'order':
      return written.map(({ words }, at) => `${at + 1}. ${words}`)
    case 'match':
      return said.filter(({ match }) => match !== '').map(({ words, match }) => `${words} = ${match}`.trim())
    case 'free':
      return ['read']
    case 'file':
      return ['file']
    default:
      return []
  }
}

/** What is asked on one line. The editor of texts names its paragraphs, which a question has no use for. */
const oneLineOf = (html: string) => html.replace(/ data-block="[^"]*"/g, '').replace(/\r?\n/g, '&#10;')

function linesOf(question: QuestionForm): string[] {
  const canBePartly = /^(many|order|match|gaps)$/.test(question.kind)
  return [
    `formatted: ${inShort(question.html) && oneLineOf(question.html)}`.trim(),
    ...answersOf(question),
    ...(canBePartly && question.allOrNothing ? ['all or nothing'] : []),
    ...(question.inThisOrder ? ['in this order'] : []),
    ...(question.points === 1 ? [] : [`points: ${question.points}`]),
    ...(question.isExtra ? ['extra'] : []),
    ...(question.faulty ? [`faulty: ${question.faulty}`] : []),
    ...(oneLine(question.hint) ? [`hint: ${oneLine(question.hint)}`] : []),
    ...(oneLine(question.after) ? [`after: ${oneLine(question.after)}`] : []),
  ]
}

/** Rows as the plain text that the server reads, and at which of its lines, from 0, each begins. */
export function textOf(rows: readonly QuestionForm[]): { text: string; begins: number[] } {
  const lines: string[] = []
  const begins = rows.map((row) => {
    const begin = lines.length
    if (row.beginsPage) lines.push('page', '')
    if (row.draw > 0) lines.push(`${row.draw} of the next ${row.drawOf}`, '')
    lines.push(...linesOf(row), '')
    return begin
  })
  return { text: lines.slice(0, -1).join('\n'), begins }
}

/** Whether something of a question is written. */
export const isBegun = (question: QuestionForm): boolean =>
  inShort(question.html) !== '' || question.answers.some(({ words }) => words.trim() !== '')

/** What is wrong with each row, in words; empty: nothing. */
export const faultsOf = (begins: readonly number[], lines: readonly Schemas['QuizLine'][]): string[] =>
  begins.map(
    (begin, at) => lines.slice(begin, begins[at + 1] ?? lines.length).find((line) => line.isFault)?.words ?? '',
  )

/** What is asked, in a few words. */
export function inShort(html: string): string {
  const page = new DOMParser().parseFromString(html, 'text/html')
  return page.body.textContent.trim() || (page.querySelector('img, audio, video') ? 'a picture' : '')
}
