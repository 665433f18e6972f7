import { Image } from '@tiptap/extension-image'
import { TableKit } from '@tiptap/extension-table'
import StarterKit from '@tiptap/starter-kit'
import { useEditor } from '@tiptap/vue-3'
import { computed } from 'vue'
import { useUploads } from '../../../parts/files/useUploads'
import { Formula, type FormulaAttributes } from '../../../parts/text/formula'
import { Inset } from '../../../parts/text/inset'
import { Film, Sound, mediaOf } from '../../../parts/text/media'
import { AS_TYPED, BlockIds, TAKEN_OVER } from './blocks'
import { whereItLeads } from './field/links'
import { cleanPasted } from './pasted'
import '../../../parts/text/text.css'

/** Pictures, sounds and films among files that were dropped or pasted. */
const mediaAmong = (files: FileList | undefined) =>
  [...(files ?? [])].filter((file) => /^(image|audio|video)\//.test(file.type))

const MEDIA = [
  { type: 'image', attribute: 'alt', words: 'What the picture shows, for those who cannot see it' },
  { type: 'sound', attribute: 'title', words: 'What is to be heard, for those who cannot hear it' },
  { type: 'film', attribute: 'title', words: 'What the film shows, for those who cannot see it' },
]

/**
 * A text being written: headings, lists, tables, pictures, sounds, films, formulas, insets.
 * @param html The text as it stands.
 * @param typed Called whenever one has changed something.
 * @param label What the field is called.
 */
export function useText(html: string, typed: () => void, label = 'Text') {
  const { going, add } = useUploads((files) => {
    for (const file of files)
      editor.value
        ?.chain()
        .focus()
        .insertContent({ type: mediaOf(file.name), attrs: { src: `/api/me/uploads/${file.upload}/bytes` } })
        .run()
  })
  const take = (files: File[]): boolean => {
    if (files.length > 0) add(files)
    return files.length > 0
  }
  const editor = useEditor({
    content: html,
    parseOptions: AS_TYPED,
    extensions: [
      StarterKit.configure({ heading: { levels: [2, 3] }, link: { openOnClick: false } }),
      TableKit.configure({ table: { resizable: false } }),
      Image,
      Sound,
      Film,
      Inset,
      Formula,
      BlockIds,
    ],
    injectCSS: false,
    editorProps: {
      attributes: { role: 'textbox', 'aria-label': label, 'aria-multiline': 'true', class: 'running-text' },
      transformPastedHTML: cleanPasted,
      handlePaste: (_, event) => take(mediaAmong(event.clipboardData?.files)),
      handleDrop: (_, event, __, moved) => !moved && take(mediaAmong(event.dataTransfer?.files)),
    },
    onUpdate: ({ transaction, appendedTransactions }) => {
      const all = [transaction, ...appendedTransactions]
      if (!all.some((one) => one.getMeta(TAKEN_OVER))) typed()
    },
  })

  const tools = computed(() => {
    const on = editor.value
    if (!on) return []
    const chain = () => on.chain().focus()
    const inset = (kind: string) =>
      on.isActive('inset', { kind })
        ? chain().lift('inset').run()
        : on.isActive('inset')
          ? chain().updateAttributes('inset', { kind }).run()
          : chain().wrapIn('inset', { kind }).run()
    return [
      {
        words: 'Heading',
        active: on.isActive('heading', { level: 2 }),
        run: () => chain().toggleHeading({ level: 2 }).run(),
      },
      { words: 'Bold', active: on.isActive('bold'), run: () => chain().toggleBold().run() },
      { words: 'Italic', active: on.isActive('italic'), run: () => chain().toggleItalic().run() },
      { words: 'List', active: on.isActive('bulletList'), run: () => chain().toggleBulletList().run() },
      { words: 'Numbered', active: on.isActive('orderedList'), run: () => chain().toggleOrderedList().run() },
      { words: 'Quote', active: on.isActive('blockquote'), run: () => chain().toggleBlockquote().run() },
      { words: 'Code', active: on.isActive('codeBlock'), run: () => chain().toggleCodeBlock().run() },
      { words: 'Note', active: on.isActive('inset', { kind: 'note' }), run: () => inset('note') },
      { words: 'Warning', active: on.isActive('inset', { kind: 'warning' }), run: () => inset('warning') },
      {
        words: 'Table',
        active: on.isActive('table'),
        run: () => !on.isActive('table') && chain().insertTable({ rows: 3, cols: 3, withHeaderRow: true }).run(),
      },
    ]
  })

  /** What can be done with the table one is in. */
  const inTable = computed(() => {
    const on = editor.value
    if (!on?.isActive('table')) return []
    const chain = () => on.chain().focus()
    return [
      { words: 'add a row', run: () => chain().addRowAfter().run() },
      { words: 'add a column', run: () => chain().addColumnAfter().run() },
      { words: 'remove the row', run: () => chain().deleteRow().run() },
      { words: 'remove the column', run: () => chain().deleteColumn().run() },
      { words: 'remove the table', run: () => chain().deleteTable().run() },
    ]
  })

  /** The picture, sound or film that is chosen, and how it is described. */
  const picture = computed(() => {
    const on = editor.value
    const chosen = MEDIA.find((one) => on?.isActive(one.type))
    if (!on || !chosen) return null
    const { type, attribute, words } = chosen
    return {
      words,
      says: (on.getAttributes(type)[attribute] as string | null) ?? '',
      say: (said: string) => on.commands.updateAttributes(type, { [attribute]: said }),
    }
  })

  const link = {
    present: computed(() => (editor.value?.getAttributes('link').href as string | undefined) ?? ''),
    set: (typed: string) => {
      const href = whereItLeads(typed)
      const chain = editor.value?.chain().focus().extendMarkRange('link')
      if (href) chain?.setLink({ href }).run()
      else chain?.unsetLink().run()
    },
  }

  const formula = {
    /** The formula that is chosen; null: none. */
    present: computed(() =>
      editor.value?.isActive('formula') ? (editor.value.getAttributes('formula') as FormulaAttributes) : null,
    ),
    set: (attrs: FormulaAttributes) => editor.value?.chain().focus().insertContent({ type: 'formula', attrs }).run(),
  }

  /** Puts another text in the place of this one; it can be taken back as what is typed is. */
  const replace = (by: string) => editor.value?.chain().focus().selectAll().insertContent(by).run()

  return { formula, replace, editor, going, tools, inTable, picture, put: take, link }
}
