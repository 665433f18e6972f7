/** A text has headings of two levels; its title is not among them. */
export function levelHeadings(page: Document): void {
  for (const heading of page.querySelectorAll('h1, h4, h5, h6')) {
    const level = page.createElement(heading.localName === 'h1' ? 'h2' : 'h3')
    level.append(...heading.childNodes)
    heading.replaceWith(level)
  }
}
