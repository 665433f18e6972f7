// @vitest-environment jsdom
import { Editor } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { describe, expect, it } from 'vitest'
import { Formula } from '../../../../parts/text/formula'
import { formulaOf } from './formulas'

describe('a formula', () => {
  it('is MathML that remembers what was typed', () => {
    const made = formulaOf('\\frac{p}{h} < 3', false)
    expect('markup' in made && made.markup).toMatch(/^<math data-tex="\\frac\{p\}\{h\} &lt; 3">.*<mfrac>.*<\/math>$/)
    expect(formulaOf('x', true)).toMatchObject({ markup: expect.stringContaining('display="block"') as string })
  })

  it('says what is wrong with what is typed', () => {
    expect(formulaOf('\\frac{p}{', false)).toMatchObject({ problem: expect.stringContaining('TeX') as string })
    expect(formulaOf('\\nosuch', false)).toHaveProperty('problem')
  })

  it('stays what it is through the editor', () => {
    const { markup } = formulaOf('a^2', false) as { markup: string }
    const editor = new Editor({ extensions: [StarterKit, Formula], content: `<p>so ${markup} then</p>` })
    expect(editor.getHTML()).toBe(`<p>so ${markup} then</p>`)
    editor.commands.setContent('<p>so then</p>')
    editor
      .chain()
      .insertContentAt(4, { type: 'formula', attrs: { tex: 'a^2', markup } })
      .run()
    expect(editor.getHTML()).toContain(markup)
    editor.destroy()
  })
})
