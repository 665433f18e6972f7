import type { Schemas } from '../../../foundation/api/client'

export type Item = Schemas['StudentItemAnswer']

/** A file of one's work: listed on the server already, or sent and about to be. */
export interface OwnFile {
  id: number | null
  /** What was sent; with an id, it is to take the place of that file. */
  upload: string | null
  name: string
  size: string
  /** Where it can be read; null: it is not listed yet. */
  shown: Schemas['FileAnswer'] | null
}

/** What is written and what goes with it. */
export interface Written {
  text: string
  files: OwnFile[]
  links: string[]
  entries: Entry[]
  /** What was written in copies that are texts or tables, by the file's id. */
  copies: Record<number, string>
  /** What they say of it by its rubric. */
  judged: Schemas['LevelGiven'][]
}

/** What was written in a log on one day. */
export type Entry = Schemas['LogEntry']

/** What this device keeps of a text until the server has it. */
export interface Kept extends Written {
  /** A hand-in that was pressed and is not answered yet: it is sent once, under this key. */
  pressed?: Written & { key: string; at: string }
}

/** What this device keeps at a place; null: nothing, or nothing that can be read. */
export const readKept = (place: string): Kept | null => {
  try {
    const kept = JSON.parse(localStorage.getItem(place) ?? 'null') as Kept | null
    return (
      kept && {
        ...kept,
        files: kept.files ?? [],
        links: kept.links ?? [],
        entries: kept.entries ?? [],
        copies: kept.copies ?? {},
        judged: kept.judged ?? [],
      }
    )
  } catch {
    return null
  }
}

export const listed = (file: Schemas['FileAnswer']): OwnFile => ({
  id: file.id,
  upload: null,
  name: file.name,
  size: file.sizeInWords,
  shown: file,
})
export const named = (files: readonly OwnFile[]) => files.map(({ id, upload }) => ({ id, upload }))
/** What was written in those copies that are still there. */
export const writtenIn = ({ files, copies }: Written) =>
  files.flatMap(({ id, upload }) =>
    id !== null && upload === null && copies[id] !== undefined ? [{ file: id, text: copies[id] }] : [],
  )
/** What is compared: two that name the same files in the same order are the same. */
export const mark = (written: Written) =>
  JSON.stringify([
    written.text,
    named(written.files),
    written.links,
    written.entries,
    writtenIn(written),
    written.judged,
  ])
/** The copies among what was handed in last: one goes on with them. */
export const copiesOf = (item: Item): OwnFile[] =>
  (item.history.find((one) => !one.takenBackAt)?.files ?? [])
    .filter((file) => item.copies.some((copy) => copy.own === file.id))
    .map(listed)
/** A log that came back goes on with the entries it has, and copies as they were handed in. */
export const beginning = (item: Item): Written =>
  item.progress === 'with-teacher'
    ? nothing()
    : {
        ...nothing(),
        files: copiesOf(item),
        entries: (item.asks?.way === 'log' && item.history.find((one) => !one.takenBackAt)?.entries) || [],
      }
export const nothing = (): Written => ({ text: '', files: [], links: [], entries: [], copies: {}, judged: [] })
