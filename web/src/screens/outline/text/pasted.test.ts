// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import { cleanPasted } from './pasted'

const item = (level: number, words: string, drawn = '·') =>
  `<p class="MsoListParagraph" style="margin-left:36pt;mso-list:l0 level${level} lfo1">` +
  `<span style="mso-list:Ignore">${drawn}<span>&nbsp;&nbsp; </span></span>${words}<o:p></o:p></p>`
const bare = (html: string) => html.replace(/ (style|class)="[^"]*"/g, '').replace(/\n/g, '')

describe('what is pasted', () => {
  it('makes lists of what a word processor only draws as lists', () => {
    const pasted = `<p>Bring:</p>${item(1, 'a jar')}${item(2, 'with a lid')}${item(1, 'ice')}<p>And then:</p>${item(1, 'wait', '1.')}`
    expect(bare(cleanPasted(pasted))).toBe(
      '<p>Bring:</p><ul><li><p>a jar</p><ul><li><p>with a lid</p></li></ul></li><li><p>ice</p></li></ul>' +
        '<p>And then:</p><ol><li><p>wait</p></li></ol>',
    )
  })
  it('loses what is for a printer, and no words', () => {
    const pasted =
      '<html><head><style>p{color:red}</style><title>x</title></head><body><!--StartFragment--><h1>Fog</h1>' +
      '<b style="font-weight:normal"><p>It is <span style="font-weight:700">cold</span>.</p></b><!--EndFragment--></body></html>'
    expect(bare(cleanPasted(pasted))).toBe('<h2>Fog</h2><p>It is <span><strong>cold</strong></span>.</p>')
  })
  it('takes the cells of a spreadsheet, without the empty rows at the end', () => {
    const pasted =
      '<table><colgroup><col width="64"></colgroup><tbody><tr><td style="x">Mon</td><td>3</td></tr><tr><td></td><td> </td></tr></tbody></table>'
    expect(bare(cleanPasted(pasted))).toBe('<table><tbody><tr><td>Mon</td><td>3</td></tr></tbody></table>')
  })
})
