import type { Schemas } from '../../../foundation/api/client'

/** What is different in a version, beside its text. */
export interface Change {
  what: string
  how: 'added' | 'removed'
}

type Version = Pick<Schemas['HandedIn'], 'text' | 'files' | 'links' | 'entries'>

/** The files, links and days of a log that came and went. A file of the same name with other bytes went and came. */
export function changesOf(before: Version, now: Version): Change[] {
  const [was, is] = [partsOf(before), partsOf(now)]
  return [
    ...[...is].filter(([key]) => !was.has(key)).map(([, what]) => ({ what, how: 'added' as const })),
    ...[...was].filter(([key]) => !is.has(key)).map(([, what]) => ({ what, how: 'removed' as const })),
  ]
}

const partsOf = (version: Version) =>
  new Map([
    ...version.files.map((file) => [`file ${file.id}`, file.name] as const),
    ...version.links.map((link) => [`link ${link}`, link] as const),
    ...version.entries.map((entry) => [`day ${entry.on} ${entry.text}`, `${entry.on}: ${entry.text}`] as const),
  ])
