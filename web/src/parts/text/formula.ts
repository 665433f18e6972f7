import { Node } from '@tiptap/core'

/** A formula in a text: what was typed, as TeX, and what is shown, as MathML. */
export interface FormulaAttributes {
  tex: string
  /** The MathML, with the TeX in it. */
  markup: string
}

const elementOf = (markup: string): Element => {
  const holder = document.createElement('template')
  holder.innerHTML = markup
  return holder.content.firstElementChild ?? document.createElement('math')
}

/** A formula stands among words like one of them. */
export const Formula = Node.create({
  name: 'formula',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({
    tex: { default: '', rendered: false, parseHTML: (element) => element.getAttribute('data-tex') ?? '' },
    markup: { default: '', rendered: false, parseHTML: (element) => element.outerHTML },
  }),
  parseHTML: () => [{ tag: 'math' }],
  renderHTML: ({ node }) => elementOf((node.attrs as FormulaAttributes).markup) as HTMLElement,
})
