import { Node, mergeAttributes } from '@tiptap/core'

/** A sound or a film that stands in a text. */
const media = (name: 'sound' | 'film', tag: 'audio' | 'video') =>
  Node.create({
    name,
    group: 'block',
    atom: true,
    draggable: true,
    addAttributes: () => ({ src: { default: null }, title: { default: '' } }),
    parseHTML: () => [{ tag: `${tag}[src]` }],
    renderHTML: ({ HTMLAttributes }) => [tag, mergeAttributes({ controls: '', preload: 'metadata' }, HTMLAttributes)],
  })

export const Sound = media('sound', 'audio')
export const Film = media('film', 'video')

/** What a file is in a text, by its name. */
export const mediaOf = (name: string): 'image' | 'sound' | 'film' =>
  /\.(mp3|m4a|aac|oga|ogg|opus|wav|flac)$/i.test(name)
    ? 'sound'
    : /\.(mp4|m4v|mov|webm|ogv)$/i.test(name)
      ? 'film'
      : 'image'
