import 'vuetify/styles/core'
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

/** Drawn as the marks are: square boxes, open angles. */
const drawn = {
  checkboxOff: 'svg:M4 4H20V20H4ZM5.5 5.5V18.5H18.5V5.5Z',
  checkboxOn: 'svg:M4 4H20V20H4ZM5.5 5.5V18.5H18.5V5.5ZM7.2 12.4L8.4 11.2L10.9 13.7L15.7 8.2L17 9.3L11 16.2Z',
  dropdown: 'svg:M6 9.5L7 8.5L12 13.3L17 8.5L18 9.5L12 15.4Z',
}

const line = { variant: 'plain', density: 'compact', hideDetails: 'auto' } as const
const list = { ...line, menuProps: { offset: 2, maxHeight: 360 }, transition: false } as const
const tick = { density: 'compact', hideDetails: true, color: undefined } as const

/** Vuetify's controls with our theme; how they are dressed stands in `controls.css`. */
export function makeVuetify(nonce: string) {
  return createVuetify({
    theme: { defaultTheme: 'day', cspNonce: nonce, themes: { day: themeOf('day'), night: themeOf('night') } },
    icons: { defaultSet: 'mdi', aliases: { ...aliases, ...drawn }, sets: { mdi } },
    date: { locale: { en: 'en-GB' } },
    defaults: {
      global: { ripple: false, elevation: 0 },
      VBtn: { variant: 'text', density: 'compact', rounded: 0 },
      VTextField: { ...line, persistentPlaceholder: true },
      VTextarea: { ...line, persistentPlaceholder: true },
      VSelect: list,
      VAutocomplete: list,
      VCombobox: list,
      VFileInput: { ...line, prependIcon: '' },
      VCheckbox: tick,
      VRadioGroup: tick,
      VRadio: { density: 'compact' },
      VSwitch: tick,
      VList: { density: 'compact' },
      VDialog: { scrim: 'background', maxWidth: 640 },
      VMenu: { offset: 4 },
      VTooltip: { openDelay: 300 },
    },
  })
}
