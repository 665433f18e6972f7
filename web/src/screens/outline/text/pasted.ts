import { levelHeadings } from './headings'

/**
 * What was copied from a word processor, a spreadsheet or a page, as a text has it: lists that were only drawn as such become lists,
 * headings come to the two levels there are, and what was meant for a printer goes.
 */
export function cleanPasted(html: string): string {
  const page = new DOMParser().parseFromString(html.replace(/<!--[\s\S]*?-->/g, ''), 'text/html')
  for (const element of page.querySelectorAll('style, script, meta, link, title, xml, o\\:p'))
    element.replaceWith(...(element.localName === 'o:p' ? element.childNodes : []))
  // A whole page that is bold only to say that it is not.
  for (const bold of page.querySelectorAll<HTMLElement>('b, strong'))
    if (/font-weight:\s*(normal|400)/.test(bold.getAttribute('style') ?? '')) bold.replaceWith(...bold.childNodes)
  for (const span of page.querySelectorAll<HTMLElement>('span')) mark(span)
  drawnLists(page)
  levelHeadings(page)
  for (const table of page.querySelectorAll('table')) plainTable(table)
  return page.body.innerHTML
}

// What only looks bold, italic or struck out is so.
function mark(span: HTMLElement): void {
  const style = span.getAttribute('style') ?? ''
  const marks = [
    /font-weight:\s*(bold|[6-9]00)/.test(style) && 'strong',
    /font-style:\s*italic/.test(style) && 'em',
    /text-decoration[^;]*:\s*[^;]*line-through/.test(style) && 's',
    /vertical-align:\s*super/.test(style) && 'sup',
    /vertical-align:\s*sub/.test(style) && 'sub',
  ].filter((one) => one !== false)
  for (const name of marks) {
    const element = span.ownerDocument.createElement(name)
    element.append(...span.childNodes)
    span.append(element)
  }
}

const LEVEL = /mso-list:\s*\S+\s+level(\d)/
const BULLET = /^[\s\u00a0]*[·•◦▪§o–-][\s\u00a0]+/
const NUMBER = /^[\s\u00a0]*(\d+|[a-z]|[ivx]+)[.)][\s\u00a0]+/i

// Word processors give lists as paragraphs that begin with a bullet or a number, and say how deep they are.
function drawnLists(page: Document): void {
  const open: { list: Element; level: number }[] = []
  let previous: Element | null = null
  for (const paragraph of page.querySelectorAll<HTMLElement>('p')) {
    const level = Number(LEVEL.exec(paragraph.getAttribute('style') ?? '')?.[1] ?? 0)
    if (level === 0) continue
    if (previous !== null && paragraph.previousElementSibling !== previous) open.length = 0
    const words = paragraph.textContent ?? ''
    const name = NUMBER.test(words) && !BULLET.test(words) ? 'ol' : 'ul'
    while (open.length > 0 && open.at(-1)!.level > level) open.pop()
    if (open.at(-1)?.level !== level || open.at(-1)?.list.localName !== name) {
      if (open.at(-1)?.level === level) open.pop()
      const list = page.createElement(name)
      const above = open.at(-1)?.list.lastElementChild
      if (above) above.append(list)
      else paragraph.before(list)
      open.push({ list, level })
    }
    withoutBullet(paragraph)
    const item = page.createElement('li')
    open.at(-1)!.list.append(item)
    item.append(paragraph)
    previous = open[0]!.list
  }
}

function withoutBullet(paragraph: HTMLElement): void {
  const drawn = paragraph.querySelector('[style*="mso-list"][style*="gnore"]')
  if (drawn) {
    drawn.remove()
    return
  }
  const walker = paragraph.ownerDocument.createTreeWalker(paragraph, NodeFilter.SHOW_TEXT)
  const first = walker.nextNode() as Text | null
  if (first) first.data = first.data.replace(BULLET, '').replace(NUMBER, '')
}

// A spreadsheet's first row is no heading of its own accord; what has no words at its end is left out.
function plainTable(table: HTMLTableElement): void {
  for (const column of table.querySelectorAll('colgroup, col')) column.remove()
  const rows = [...table.querySelectorAll('tr')]
  for (const row of rows.reverse()) {
    if ((row.textContent ?? '').trim() !== '' || row.querySelector('img')) break
    row.remove()
  }
}
