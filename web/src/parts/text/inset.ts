import { Node, mergeAttributes } from '@tiptap/core'

/** What stands apart from the text around it: a note, or a warning. */
export const Inset = Node.create({
  name: 'inset',
  group: 'block',
  content: 'block+',
  defining: true,
  addAttributes: () => ({
    kind: {
      default: 'note',
      parseHTML: (element) => (element.getAttribute('data-kind') === 'warning' ? 'warning' : 'note'),
      renderHTML: ({ kind }) => ({ 'data-kind': kind as string }),
    },
  }),
  parseHTML: () => [{ tag: 'aside' }],
  renderHTML: ({ HTMLAttributes }) => ['aside', mergeAttributes(HTMLAttributes), 0],
})
