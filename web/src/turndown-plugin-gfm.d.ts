declare module '@joplin/turndown-plugin-gfm' {
  import type TurndownService from 'turndown'
  /** Tables, struck-out words and ticked lists. */
  export const gfm: TurndownService.Plugin
}
