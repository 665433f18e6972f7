// @vitest-environment jsdom
import { Editor, createDocument } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { afterEach, describe, expect, it } from 'vitest'
import { AS_TYPED, BlockIds, takeOver } from './blocks'

const opened: Editor[] = []
const open = (content: string) => {
  const editor = new Editor({ content, parseOptions: AS_TYPED, extensions: [StarterKit, BlockIds] })
  opened.push(editor)
  return editor
}
afterEach(() => opened.splice(0).forEach((editor) => editor.destroy()))
const ids = (editor: Editor) => {
  const found: (string | null)[] = []
  editor.state.doc.forEach((node) => found.push(node.attrs.block as string | null))
  return found
}
const take = (editor: Editor, html: string) =>
  editor.view.dispatch(takeOver(editor.state.tr, createDocument(html, editor.schema, AS_TYPED)))
const TWO = '<p data-block="aaaaaa">Look up.</p><p data-block="bbbbbb">Write it down.</p>'

describe('the blocks of a text', () => {
  it('keep their ids; the second half of one that is split gets another', () => {
    const editor = open(TWO)
    editor.commands.setTextSelection(5)
    editor.commands.splitBlock()
    expect(ids(editor)).toHaveLength(3)
    expect(ids(editor)[0]).toBe('aaaaaa')
    expect(ids(editor)[1]).toMatch(/^[a-z0-9]{12}$/)
    expect(ids(editor)[2]).toBe('bbbbbb')
  })
  it('are never two of the same id, whatever is pasted', () => {
    const editor = open(TWO)
    editor.commands.insertContentAt(editor.state.doc.content.size, '<p data-block="aaaaaa">Again</p>')
    expect(new Set(ids(editor)).size).toBe(ids(editor).length)
    expect(ids(editor)).not.toContain(null)
  })
  it('are taken over from others, and the caret stays in the block one writes in', () => {
    const editor = open(TWO)
    editor.commands.setTextSelection(16)
    editor.commands.insertContent('Now: ')
    take(
      editor,
      '<h2 data-block="cccccc">Clouds</h2><p data-block="aaaaaa">Look up at noon.</p>' +
        editor.getHTML().slice(editor.getHTML().indexOf('<p data-block="bbbbbb"')),
    )
    expect(editor.getText()).toContain('Look up at noon.')
    expect(ids(editor)).toEqual(['cccccc', 'aaaaaa', 'bbbbbb'])
    expect(editor.state.selection.$head.parent.attrs.block).toBe('bbbbbb')
    // What one takes back is what one typed, not what they wrote.
    editor.commands.undo()
    expect(editor.getText()).toContain('Look up at noon.')
    expect(editor.getText()).not.toContain('Now: ')
  })
  it('change one by one where none was added, and go where theirs are gone', () => {
    const editor = open(TWO)
    editor.commands.setTextSelection(3)
    take(editor, TWO.replace('Write it down.', 'Write it in the log.'))
    expect(editor.state.selection.head).toBe(3)
    take(editor, '<p data-block="bbbbbb">Write it in the log.</p>')
    expect(editor.getText()).toBe('Write it in the log.')
  })
})
