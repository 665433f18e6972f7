import { Extension } from '@tiptap/core'
import type { Node } from '@tiptap/pm/model'
import { Plugin, type Transaction } from '@tiptap/pm/state'

const BLOCKS = [
  'paragraph',
  'heading',
  'bulletList',
  'orderedList',
  'blockquote',
  'codeBlock',
  'horizontalRule',
  'table',
  'image',
  'sound',
  'film',
  'inset',
]
/** How a text is read that was written here: with the spaces that were typed. */
export const AS_TYPED = { preserveWhitespace: true } as const
/** On a transaction that takes over what others wrote. */
export const TAKEN_OVER = 'takenOver'

const fresh = () => crypto.randomUUID().replaceAll('-', '').slice(0, 12)
const idOf = (node: Node) => node.attrs.block as string | null

/** Each block that stands by itself in a text has an id, and keeps it while it lives: two who write in it are merged by it. */
export const BlockIds = Extension.create({
  name: 'blockIds',
  addGlobalAttributes: () => [
    {
      types: BLOCKS,
      attributes: {
        block: {
          default: null,
          // Of a block that is split, the first half stays what it was.
          keepOnSplit: false,
          parseHTML: (element) => element.getAttribute('data-block'),
          renderHTML: ({ block }) => (block ? { 'data-block': block as string } : {}),
        },
      },
    },
  ],
  addProseMirrorPlugins: () => [
    new Plugin({
      appendTransaction: (done, _, { doc, tr }) => {
        if (!done.some((one) => one.docChanged)) return null
        const taken = new Set<string>()
        doc.forEach((node, at) => {
          const id = idOf(node)
          if (id && !taken.has(id)) taken.add(id)
          else {
            const given = fresh()
            taken.add(given)
            tr.setNodeAttribute(at, 'block', given)
          }
        })
        return tr.docChanged ? tr.setMeta('addToHistory', false) : null
      },
    }),
  ],
})

/**
 * Puts what is different in another text in its place, block by block, so that the caret stays where it is and nothing of it is
 * taken back with what one typed oneself.
 */
export function takeOver(tr: Transaction, text: Node): Transaction {
  const places: { node: Node; at: number }[] = []
  tr.doc.forEach((node, at) => places.push({ node, at }))
  const others: Node[] = []
  text.forEach((node) => others.push(node))
  const same = (i: number, j: number) => {
    const place = places[i]
    const other = others[j]
    return place !== undefined && other !== undefined && place.node.eq(other)
  }
  let first = 0
  while (same(first, first)) first++
  let last = 0
  while (
    last < places.length - first &&
    last < others.length - first &&
    same(places.length - 1 - last, others.length - 1 - last)
  )
    last++
  const old = places.slice(first, places.length - last)
  const middle = others.slice(first, others.length - last)
  const inPlace = old.length === middle.length && old.every(({ node }, i) => idOf(node) === idOf(middle[i] as Node))
  if (inPlace)
    for (const [i, { node, at }] of [...old.entries()].reverse()) {
      const by = middle[i] as Node
      if (!node.eq(by)) tr.replaceWith(at, at + node.nodeSize, by)
    }
  else {
    const from = old[0]?.at ?? places[first]?.at ?? tr.doc.content.size
    const to = old.length ? (old.at(-1)?.at ?? 0) + (old.at(-1)?.node.nodeSize ?? 0) : from
    tr.replaceWith(from, to, middle)
  }
  return tr.setMeta('addToHistory', false).setMeta(TAKEN_OVER, true)
}
