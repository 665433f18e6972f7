import { gfm } from '@joplin/turndown-plugin-gfm'
import { Marked } from 'marked'
import TurndownService from 'turndown'
import { formulaOf } from './field/formulas'
import { levelHeadings } from './headings'

const INSETS = { note: 'Note', warning: 'Warning' } as const

const writer = new TurndownService({
  headingStyle: 'atx',
  bulletListMarker: '-',
  codeBlockStyle: 'fenced',
  emDelimiter: '*',
  hr: '---',
})
writer.use(gfm)
writer.keep(['sub', 'sup', 'audio', 'video'])
writer.addRule('formula', {
  filter: (node) => node.nodeName.toLowerCase() === 'math',
  replacement: (_, node) => {
    const formula = node as Element
    const tex = formula.getAttribute('data-tex') ?? formula.textContent ?? ''
    return formula.getAttribute('display') === 'block' ? `$$${tex}$$` : `$${tex}$`
  },
})
writer.addRule('inset', {
  filter: 'aside',
  replacement: (content, node) => {
    const kind = (node as Element).getAttribute('data-kind') === 'warning' ? INSETS.warning : INSETS.note
    return `\n\n${`**${kind}:** ${content.trim()}`.replace(/^/gm, '> ')}\n\n`
  },
})

/** A text as Markdown: formulas as TeX between dollars, insets as quotations that begin with **Note:** or **Warning:**. */
export const toMarkdown = (html: string): string => writer.turndown(html).trim()

const FORMULA = /^\$\$([^$]+)\$\$|^\$(?!\s)([^$\n]+?)(?<!\s)\$(?!\d)/
const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;')

const reader = new Marked({
  gfm: true,
  async: false,
  extensions: [
    {
      // Before anything in it is read as Markdown; in code a dollar is one.
      name: 'formula',
      level: 'inline',
      start: (source: string) => source.indexOf('$'),
      tokenizer: (source: string) => {
        const found = FORMULA.exec(source)
        return found
          ? {
              type: 'formula',
              raw: found[0],
              tex: (found[1] ?? found[2] ?? '').trim(),
              ownLine: found[1] !== undefined,
            }
          : undefined
      },
      renderer: ({ raw, tex, ownLine }) => {
        const made = formulaOf(tex as string, ownLine as boolean)
        return 'markup' in made ? made.markup : escaped(raw)
      },
    },
  ],
})

/** Markdown as a text: what the text has no element for is left out by whoever reads it. */
export function fromMarkdown(markdown: string): string {
  const page = new DOMParser().parseFromString(reader.parse(markdown) as string, 'text/html')
  levelHeadings(page)
  for (const quote of page.querySelectorAll('blockquote')) setApart(quote)
  return page.body.innerHTML
}

function setApart(quote: Element): void {
  const first = quote.firstElementChild?.firstChild
  const kind = Object.entries(INSETS).find(([, word]) => first?.textContent === `${word}:`)?.[0]
  if (!kind || first?.nodeName !== 'STRONG') return
  const inset = quote.ownerDocument.createElement('aside')
  inset.setAttribute('data-kind', kind)
  inset.append(...quote.childNodes)
  if (first.nextSibling?.nodeType === Node.TEXT_NODE)
    first.nextSibling.textContent = (first.nextSibling.textContent ?? '').trimStart()
  first.remove()
  quote.replaceWith(inset)
}
