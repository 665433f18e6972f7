// Every colour, distance, radius, line and size of type there is. Nothing visual is decided elsewhere.

export const papers = {
  day: {
    paper: '#f7f3ea',
    sheet: '#fdfbf6',
    ink: '#20242e',
    'ink-2': '#565b66',
    line: '#8b8b86',
    hair: '#d8d0bf',
    'faint-hair': '#e8e2d4',
    accent: '#b23a17',
    'on-accent': '#fdfbf6',
    wash: '#f3e4d6',
    'section-a': '#1f4e8c',
    'section-b': '#8a5a00',
    'section-c': '#2f6b3a',
    'section-d': '#7a2f6b',
    'section-e': '#4a4f57',
    'section-f': '#0f6670',
  },
  night: {
    paper: '#1b1e24',
    sheet: '#23272f',
    ink: '#ece6d8',
    'ink-2': '#b3aea2',
    line: '#85827a',
    hair: '#3a3e46',
    'faint-hair': '#2d3138',
    accent: '#f08a5d',
    'on-accent': '#1b1e24',
    wash: '#3a2c25',
    'section-a': '#8fb6f2',
    'section-b': '#e0b45c',
    'section-c': '#8fcf9b',
    'section-d': '#e19ad2',
    'section-e': '#b9bec8',
    'section-f': '#6fc7cf',
  },
} as const

export type Paper = keyof typeof papers
export type Ink = keyof (typeof papers)['day']

/** Distances in px, by step. */
export const spaces = [0, 2, 4, 6, 8, 12, 16, 20, 28, 40, 56, 72] as const

/** Corners in px: a drawing has square ones; what is pressed or written in has them eased. */
export const radii = [0, 2] as const

/** Sizes of type in px. Nothing is smaller than the first. */
export const sizes = { small: 13, text: 15, large: 17, unit: 18, mark: 17, title: 30, cover: 44 } as const

/** Widths of drawn lines in px. */
export const strokes = { hair: 1, line: 1.5, strong: 2, bold: 2.6 } as const

/** The line of each section by its letter, as in the key of a train graph: dashes in px, none for a solid line. */
export const sectionLines: Record<string, { ink: Ink; dashes: string }> = {
  A: { ink: 'section-a', dashes: '' },
  B: { ink: 'section-b', dashes: '7 3' },
  C: { ink: 'section-c', dashes: '1.6 3' },
  D: { ink: 'section-d', dashes: '10 3 2 3' },
  E: { ink: 'section-e', dashes: '4 2 4 6' },
  F: { ink: 'section-f', dashes: '12 3 2 3 2 3' },
}

const faces = {
  text: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif",
  display: "'Fraunces Variable', Georgia, serif",
}

/** The theme as custom properties, one set for each paper. */
export function themeCss(): string {
  const fixed = [
    ...spaces.map((px, step) => `--space-${step}:${px}px`),
    ...radii.map((px, step) => `--radius-${step}:${px}px`),
    ...Object.entries(sizes).map(([name, px]) => `--size-${name}:${px}px`),
    ...Object.entries(strokes).map(([name, px]) => `--stroke-${name}:${px}px`),
    ...Object.entries(faces).map(([name, face]) => `--face-${name}:${face}`),
  ]
  const inks = (paper: Paper) => Object.entries(papers[paper]).map(([name, value]) => `--${name}:${value}`)
  return [
    `:root{${fixed.join(';')}}`,
    ...(Object.keys(papers) as Paper[]).map(
      (paper) => `[data-paper=${paper}]{color-scheme:${paper === 'night' ? 'dark' : 'light'};${inks(paper).join(';')}}`,
    ),
  ].join('\n')
}
