// @vitest-environment jsdom
import { beforeEach, describe, expect, test } from 'vitest'
import { askWhyHere } from './useWhyKey'

describe('the key that asks why', () => {
  const asked: string[] = []
  beforeEach(() => {
    asked.length = 0
    document.body.innerHTML = ['first', 'second', 'third']
      .map((name) => `<li id="${name}" tabindex="0"><button>${name}</button><a data-why href="#${name}">why</a></li>`)
      .join('')
    for (const link of document.querySelectorAll<HTMLElement>('[data-why]'))
      link.addEventListener('click', (event) => {
        event.preventDefault()
        asked.push(link.closest('li')!.id)
      })
  })

  test('it asks about the row that the focus is in', () => {
    document.querySelector<HTMLElement>('#second button')!.focus()
    askWhyHere()
    document.querySelector<HTMLElement>('#third')!.focus()
    askWhyHere()
    expect(asked).toEqual(['second', 'third'])
  })

  test('with the focus in no row it asks about the first, and where there is nothing it does nothing', () => {
    askWhyHere()
    expect(asked).toEqual(['first'])
    document.body.innerHTML = ''
    askWhyHere()
    expect(asked).toEqual(['first'])
  })
})
