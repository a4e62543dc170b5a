/** The forms a combination is kept in as a file, and the end of their names. */
export const FORMATS = {
  json: '.sway.json',
  sway: '.sway',
  csv: '.csv',
  txt: '.txt',
  md: '.md',
  vtt: '.vtt',
  mid: '.mid',
} as const
export type Format = keyof typeof FORMATS
