import { expect, it } from 'vitest'
import { base64Of } from './base64'

it('a file travels whole, however long', async () => {
  const bytes = Uint8Array.from({ length: 70_001 }, (_, n) => n % 256)
  const back = Uint8Array.from(atob(await base64Of(new Blob([bytes]))), (letter) => letter.charCodeAt(0))
  expect(back).toEqual(bytes)
})
