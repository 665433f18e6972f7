import type { Schemas } from '../foundation/api/client'

type Asks = Schemas['AsksForm']

/** The sorts of file that can be asked for, as one says them: “a picture”. */
export const fileKinds = [
  { value: null, title: 'any file' },
  { value: 'picture', title: 'a picture' },
  { value: 'document', title: 'a document' },
  { value: 'table', title: 'a spreadsheet' },
  { value: 'slides', title: 'slides' },
  { value: 'sound', title: 'a sound recording' },
  { value: 'film', title: 'a film' },
  { value: 'other', title: 'another kind of file' },
] as const

/** What a file chooser is to offer for them; undefined: everything. */
export function accepted(asks: Asks | null): string | undefined {
  if (!asks || asks.others || asks.files.length === 0 || asks.files.some((file) => !file.kind)) return undefined
  const endings: Record<string, string> = {
    picture: 'image/*',
    document: '.pdf,.docx,.odt,.rtf,.txt,.md',
    table: '.csv,.xlsx,.ods',
    slides: '.pptx,.odp',
    sound: 'audio/*',
    film: 'video/*',
  }
  const list = asks.files.map((file) => endings[file.kind!])
  return list.some((one) => one === undefined) ? undefined : [...new Set(list)].join(',')
}

export function joined(parts: readonly string[], last = 'and'): string {
  return parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} ${last} ${parts[parts.length - 1]}`
}

/** What students are asked for, as the team reads it. */
export function asksSentence(asks: Asks | null): string {
  if (!asks) return 'Nothing is handed in.'
  if (asks.way === 'tick') return 'Nothing is handed in: students tick it off.'
  const asked = [
    ...(asks.way === 'log' ? ['a log'] : asks.text === 'asked' ? ['text'] : []),
    ...(asks.links === 'asked' ? ['a link'] : []),
    ...asks.files.map((file) => file.what),
  ]
  const welcome = [
    ...(asks.way === 'work' && asks.text === 'welcome' ? ['text'] : []),
    ...(asks.links === 'welcome' ? ['links'] : []),
    ...(asks.others ? [asks.files.length ? 'other files' : 'files'] : []),
  ]
  const what = !asked.length
    ? `Students hand in ${joined(welcome, 'or')}.`
    : `Students hand in ${joined(asked)}${welcome.length ? `; they can add ${joined(welcome, 'and')}` : ''}.`
  const also = asks.judged ? `${what} They judge their own piece against the rubric first.` : what
  if (!asks.together?.length) return also
  return `${also} ${joined(asks.together)} ${asks.together.length === 1 ? 'hands' : 'each hand'} in one piece.`
}

/** The same as its student reads it; empty: nothing but what the page says anyway. */
export function askedOfYou(asks: Asks | null): string {
  if (!asks || asks.way === 'tick') return ''
  const kindOf = (kind: string | null) => fileKinds.find((one) => one.value === kind)!.title
  const asked = [
    ...(asks.way === 'log' ? [] : asks.text === 'asked' ? ['your text'] : []),
    ...(asks.links === 'asked' ? ['a link'] : []),
    // A photograph says itself that it is a picture.
    ...asks.files.map((file) =>
      file.kind && file.kind !== 'picture' ? `${file.what} (${kindOf(file.kind)})` : file.what,
    ),
  ]
  const isPlain = asks.links !== 'asked' && asks.files.length === 0
  return isPlain ? '' : `Hand in ${joined(asked)}.`
}
