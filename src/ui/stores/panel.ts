/** What stands beside the braid, in the order of its keys. */
export const PANELS = ['body', 'floor', 'level', 'moves', 'sheet', 'song'] as const
export type Panel = (typeof PANELS)[number]
export const PANEL_WORDS: Readonly<Record<Panel, string>> = {
  body: 'Body and findings',
  floor: 'Floor and turns',
  level: 'Level and tempo',
  moves: 'Moves',
  sheet: 'Count sheet',
  song: 'Song and film',
}
