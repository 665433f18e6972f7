import { ref, watchEffect } from 'vue'
import { useTheme } from 'vuetify'
import { type Paper, themeCss } from './theme'

const KEPT = 'polycline-paper'
const paper = ref<Paper>(firstPaper())

function firstPaper(): Paper {
  const kept = localStorage.getItem(KEPT)
  if (kept === 'day' || kept === 'night') return kept
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
}

/** Lays the theme under the page; once, before anything is drawn. */
export function layPaper(): void {
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(themeCss())
  document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet]
  document.documentElement.dataset.paper = paper.value
}

/** Which paper the page is drawn on, and turning it over. Remembered on this device. */
export function usePaper() {
  const theme = useTheme()
  watchEffect(() => {
    document.documentElement.dataset.paper = paper.value
    theme.change(paper.value)
  })
  function turnOver(): void {
    paper.value = paper.value === 'day' ? 'night' : 'day'
    localStorage.setItem(KEPT, paper.value)
  }
  return { paper, turnOver }
}
