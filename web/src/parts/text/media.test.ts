// @vitest-environment jsdom
import { Editor } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { describe, expect, it } from 'vitest'
import { Film, Sound, mediaOf } from './media'

describe('sounds and films in a text', () => {
  it('stay what they are through the editor', () => {
    const html =
      '<p>Listen.</p><audio controls="" preload="metadata" src="/api/me/uploads/a/bytes" title="A foghorn"></audio>' +
      '<video controls="" preload="metadata" src="/api/me/uploads/b/bytes" title=""></video>'
    const editor = new Editor({ extensions: [StarterKit, Sound, Film], content: html })
    expect(editor.getHTML()).toBe(html)
    editor.destroy()
  })
  it('are told apart by what the file is called', () => {
    expect(['horn.MP3', 'tide.webm', 'sky.jpg', 'sky'].map(mediaOf)).toEqual(['sound', 'film', 'image', 'image'])
  })
})
