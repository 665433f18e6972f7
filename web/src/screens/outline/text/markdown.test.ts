// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import { fromMarkdown, toMarkdown } from './markdown'

const plain = (html: string) => html.replace(/\n/g, '')

describe('a text as Markdown', () => {
  it('goes out and comes in again as it was', () => {
    const text =
      '<h2>Two pressures</h2><p>Air <strong>presses</strong> from <em>all</em> sides, <code>p</code>.</p>' +
      '<ul><li>one</li><li>two</li></ul><ol><li>first</li></ol><blockquote><p>So it was said.</p></blockquote>' +
      '<pre><code>a = 1\n</code></pre><p><a href="https://films.example/">A film</a></p><hr>'
    expect(plain(fromMarkdown(toMarkdown(text)))).toBe(plain(text))
  })
  it('keeps tables, pictures and what they show', () => {
    const text =
      '<table><tbody><tr><th>Day</th><th>Wind</th></tr><tr><td>Mon</td><td>3</td></tr></tbody></table>' +
      '<p><img src="/api/editions/2/items/7/pictures/ab" alt="A ramp"></p>'
    const markdown = toMarkdown(text)
    expect(markdown).toContain('| Day | Wind |')
    expect(fromMarkdown(markdown)).toContain('<img src="/api/editions/2/items/7/pictures/ab" alt="A ramp">')
    expect(fromMarkdown(markdown)).toContain('<td>Mon</td>')
  })
  it('keeps formulas as TeX, but not a price or code', () => {
    const made = fromMarkdown(
      'Pressure is $p = \\frac{F}{A}$, which costs $5 or $6. So $a_1 * b_1 < a_2 * b_2$.\n\n`$x$`',
    )
    expect(made).toContain('data-tex="p = \\frac{F}{A}"')
    expect(made.match(/<math/g)).toHaveLength(2)
    expect(made).toContain('<code>$x$</code>')
    expect(toMarkdown(made)).toContain('$a_1 * b_1 < a_2 * b_2$')
    expect(toMarkdown(made)).toContain('$p = \\frac{F}{A}$')
  })
  it('keeps notes and warnings', () => {
    const text = '<aside data-kind="warning"><p>Hot glass.</p><p>Wait.</p></aside>'
    expect(toMarkdown(text)).toBe('> **Warning:** Hot glass.\n> \n> Wait.')
    expect(plain(fromMarkdown(toMarkdown(text)))).toBe(text)
  })
  it('has headings of two levels', () => {
    expect(plain(fromMarkdown('# One\n\n#### Four'))).toBe('<h2>One</h2><h3>Four</h3>')
  })
})
