import { useScreenKeys } from '../../foundation/useKeys'

/** Asks why about the row that has the focus; with none, about the first that can be asked about. */
export function askWhyHere(): void {
  const row = document.activeElement?.closest('li, tr')
  const link = row?.querySelector<HTMLElement>('[data-why]') ?? document.querySelector<HTMLElement>('[data-why]')
  link?.click()
}

/** The key of a screen on which a student and an item stand in one row. */
export function useWhyKey(): void {
  useScreenKeys([{ key: 'y', words: 'why it is open to that student, or not', run: askWhyHere }])
}
