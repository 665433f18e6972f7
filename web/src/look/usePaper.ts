import { useLocalStorage } from '@vueuse/core'
import { watchEffect } from 'vue'
import { useTheme } from 'vuetify'
import { type Paper, themeCss } from './theme'

const KEPT = 'polycline-paper'
const ofDevice: Paper = matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
/** Kept on this device and shared by its windows. An unknown value counts as none. */
const paper = useLocalStorage<Paper>(KEPT, ofDevice, {
  writeDefaults: false,
  serializer: { read: (kept) => (kept === 'day' || kept === 'night' ? kept : ofDevice), write: (now) => now },
})

/** Lays the theme under the page; once, before anything is drawn. */
export function layPaper(): void {
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(themeCss())
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
  document.documentElement.dataset.paper = paper.value
}

/** Which paper the page is drawn on, and turning it over. */
export function usePaper() {
  const theme = useTheme()
  watchEffect(() => {
    document.documentElement.dataset.paper = paper.value
    theme.change(paper.value)
  })
  function turnOver(): void {
    paper.value = paper.value === 'day' ? 'night' : 'day'
  }
  return { paper, turnOver }
}
