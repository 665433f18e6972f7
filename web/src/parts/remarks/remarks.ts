import type { Schemas } from '../../foundation/api/client'

export interface Remark {
  at: Place
  text: string
}
export type Made = Schemas['RemarkMade']
/** A stretch of a text, or a rectangle on a picture or a page; what it is not is null. */
export type Place = {
  [part in keyof Required<Schemas['RemarkPlace']>]: NonNullable<Schemas['RemarkPlace'][part]> | null
}
/** What remarks are made on. */
export type Remarked = Pick<Schemas['WorkPiece'], 'text' | 'files' | 'links' | 'entries'>

/** A part of a text, and which remarks are about it. */
export interface Stretch {
  text: string
  of: number[]
}

const QUOTED = 60
const sentences = new Intl.Segmenter(undefined, { granularity: 'sentence' })

/** A place that is nothing but what is said. */
export const place = (said: Schemas['RemarkPlace']): Place => ({
  from: said.from ?? null,
  to: said.to ?? null,
  entry: said.entry ?? null,
  file: said.file ?? null,
  page: said.page ?? null,
  box: said.box ?? null,
})
/** Remarks as they were read. */
export const remarksIn = (read: Schemas['Remark'][] | undefined): Remark[] =>
  (read ?? []).map(({ at, text }) => ({ at: place(at), text }))

/** A text cut wherever a remark begins or ends. */
export function stretchesOf(text: string, marked: { from: number; to: number; of: number }[]): Stretch[] {
  const cuts = [...new Set([0, text.length, ...marked.flatMap((one) => [one.from, one.to])])]
    .filter((cut) => cut <= text.length)
    .sort((a, b) => a - b)
  return cuts.slice(1).map((to, at) => ({
    text: text.slice(cuts[at], to),
    of: marked.filter((one) => one.from <= cuts[at]! && to <= one.to).map((one) => one.of),
  }))
}

/** The remarks on a text, or on one entry of a log. */
export const onText = (remarks: Remark[], entry: number | null) =>
  remarks.flatMap(({ at }, of) =>
    at.file === null && at.entry === entry && at.from !== null && at.to !== null
      ? [{ from: at.from, to: at.to, of }]
      : [],
  )

/** What of a text is chosen, without the blanks around it; null: nothing. */
export function trimmed(text: string, from: number, to: number): { from: number; to: number } | null {
  const chosen = text.slice(from, to)
  const begin = from + chosen.length - chosen.trimStart().length
  const end = begin + chosen.trim().length
  return end > begin ? { from: begin, to: end } : null
}

/** Every place one comes to by keys, in the order in which one reads: the sentences, then the files. */
export function placesOf(piece: Remarked): Place[] {
  const ofText = (text: string, entry: number | null) =>
    [...sentences.segment(text)].flatMap((one) => {
      const stretch = trimmed(text, one.index, one.index + one.segment.length)
      return stretch ? [place({ ...stretch, entry })] : []
    })
  return [
    ...ofText(piece.text, null),
    ...piece.entries.flatMap((entry, at) => ofText(entry.text, at)),
    ...piece.files.map((file) => place({ file: file.id })),
  ]
}

/** Before or after one another, as one reads: the text, the entries, then the files, by page and from the top. */
export function byPlace(piece: Remarked): (a: Remark, b: Remark) => number {
  const fileOf = (at: Place) => piece.files.findIndex((file) => file.id === at.file)
  return ({ at: a }, { at: b }) =>
    fileOf(a) - fileOf(b) ||
    (a.page ?? a.entry ?? -1) - (b.page ?? b.entry ?? -1) ||
    (a.from ?? a.box?.[1] ?? 0) - (b.from ?? b.box?.[1] ?? 0)
}

/** The place so many steps on from where one is; null at first: the next after the last remark there is. */
export function stepped(piece: Remarked, remarks: Remark[], at: Place | null, by: number): Place | null {
  const places = placesOf(piece)
  const order = byPlace(piece)
  const from = at ?? [...remarks].sort(order).at(-1)?.at ?? null
  if (!from) return places[0] ?? null
  const here = { at: from, text: '' }
  const on = by > 0 ? places : places.toReversed()
  return on.find((one) => order({ at: one, text: '' }, here) * by > 0) ?? (at ? null : (places.at(-1) ?? null))
}

/** The words a remark is about, as it is said where they cannot be seen. */
export function quoteOf(piece: Remarked, at: Place): string {
  if (at.file !== null) {
    const name = piece.files.find((file) => file.id === at.file)?.name ?? 'a file'
    return at.page === null ? name : `page ${at.page} of ${name}`
  }
  const text = (at.entry === null ? piece.text : piece.entries[at.entry]?.text) ?? ''
  const quote = text.slice(at.from ?? 0, at.to ?? 0).replace(/\s+/g, ' ')
  return `“${quote.length > QUOTED ? `${quote.slice(0, QUOTED).trimEnd()} …` : quote}”`
}

/** How large a place is that is only clicked, in thousandths; what is drawn smaller is a click. */
const CLICKED = 120
const LEAST = 15

/** The rectangle between two corners, within the picture: left, top, width and height in thousandths. */
export function boxBetween(from: [number, number], to: [number, number]): [number, number, number, number] {
  const side = (a: number, b: number, isClick: boolean): [number, number] => {
    const [low, high] = isClick ? [a - CLICKED / 2, a + CLICKED / 2] : [Math.min(a, b), Math.max(a, b)]
    const begin = Math.round(Math.min(Math.max(low, 0), 1000 - LEAST))
    return [begin, Math.max(LEAST, Math.round(Math.min(high, 1000)) - begin)]
  }
  const isClick = Math.abs(from[0] - to[0]) < LEAST && Math.abs(from[1] - to[1]) < LEAST
  const [left, width] = side(from[0], to[0], isClick)
  const [top, height] = side(from[1], to[1], isClick)
  return [left, top, width, height]
}

/** The place that is chosen with the mouse or the finger in a piece; null: none. */
export function chosenIn(within: HTMLElement, chosen: Selection | null): Place | null {
  if (!chosen || chosen.isCollapsed || chosen.rangeCount === 0) return null
  const range = chosen.getRangeAt(0)
  const holder = (node: Node) =>
    (node instanceof Element ? node : node.parentElement)?.closest<HTMLElement>('[data-text]')
  const text = holder(range.startContainer)
  if (!text || !within.contains(text) || holder(range.endContainer) !== text) return null
  const before = document.createRange()
  before.selectNodeContents(text)
  before.setEnd(range.startContainer, range.startOffset)
  const from = before.toString().length
  const stretch = trimmed(text.textContent ?? '', from, from + range.toString().length)
  return stretch && place({ ...stretch, entry: text.dataset.text === '' ? null : Number(text.dataset.text) })
}

const words = (text: string) => text.toLocaleLowerCase().split(/\s+/).filter(Boolean)
const OFFERED = 4

/** Of what was said before, what has all the words that are being typed in it; with nothing typed, what was said of this. */
export function offersOf(made: Made[], typed: string): string[] {
  const wanted = words(typed)
  return made
    .filter((one) => {
      const said = one.text.toLocaleLowerCase()
      return wanted.length ? one.text !== typed && wanted.every((word) => said.includes(word)) : one.here
    })
    .slice(0, OFFERED)
    .map((one) => one.text)
}
