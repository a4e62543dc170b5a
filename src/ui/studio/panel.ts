/** What stands beside the braid. */
export type Panel = 'body' | 'moves' | 'sheet'
export const PANEL_WORDS: Readonly<Record<Panel, string>> = {
  body: 'Body and findings',
  moves: 'Moves',
  sheet: 'Count sheet',
}
