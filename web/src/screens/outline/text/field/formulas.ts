import temml from 'temml'

const escaped = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;').replaceAll('>', '&gt;')

/** The MathML of what is typed as TeX, or why it cannot be read. */
export function formulaOf(tex: string, ownLine: boolean): { markup: string } | { problem: string } {
  try {
    const markup = temml
      .renderToString(tex, {
        displayMode: ownLine,
        throwOnError: true,
        trust: false,
        maxSize: [20, 20],
        maxExpand: 200,
      })
      .replace(/^<math[^>]*>/, `<math data-tex="${escaped(tex)}"${ownLine ? ' display="block"' : ''}>`)
    return { markup }
  } catch (error) {
    const said = (error as Error).message.replace(/^ParseError:\s*/, '').split('\n')[0] ?? ''
    return { problem: `This cannot be read as TeX: ${said}` }
  }
}
