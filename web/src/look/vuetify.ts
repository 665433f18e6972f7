import 'vuetify/styles'
import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'
import { type Paper, papers } from './theme'

function themeOf(paper: Paper) {
  const inks = papers[paper]
  return {
    dark: paper === 'night',
    colors: {
      background: inks.paper,
      surface: inks.sheet,
      primary: inks.ink,
      secondary: inks['ink-2'],
      error: inks.accent,
      'on-background': inks.ink,
      'on-surface': inks.ink,
      'on-primary': inks.paper,
      'on-error': inks['on-accent'],
    },
    variables: {
      'border-color': inks.hair,
      'border-opacity': 1,
      'high-emphasis-opacity': 1,
      'medium-emphasis-opacity': 1,
      'hover-opacity': 0,
      'focus-opacity': 0,
    },
  }
}

/** Vuetify with our theme; its controls are used, its look is not. */
export function makeVuetify(nonce: string) {
  return createVuetify({
    theme: { defaultTheme: 'day', cspNonce: nonce, themes: { day: themeOf('day'), night: themeOf('night') } },
    icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
    defaults: {
      global: { ripple: false, elevation: 0 },
      VBtn: { variant: 'text', density: 'compact', rounded: 0 },
      VTextField: { variant: 'plain', density: 'compact', hideDetails: 'auto', persistentPlaceholder: true },
      VDialog: { scrim: 'background', maxWidth: 640 },
      VMenu: { offset: 4 },
    },
  })
}
