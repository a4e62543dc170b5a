import { CLEAREST } from '../../core/pose/dancer'

/** How much larger than they are danced isolations can be shown. */
export const CLEARER = [1, 1.3, CLEAREST].map((by) => ({
  value: String(by),
  label: `${Math.round(by * 100)} %`,
}))

/** What can show through beside the dancer. */
export const ghostWords = [
  { value: 'none', label: 'no ghost' },
  { value: 'next', label: 'next count' },
  { value: 'still', label: 'standing still' },
] as const satisfies readonly { readonly value: string; readonly label: string }[]
