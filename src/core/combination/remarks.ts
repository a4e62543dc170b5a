import { sideWord } from '../body/side'
import type { PlaceLabel } from '../time/time'
import type { Remark } from './remark'

/**
 * What the caller says of a remark, and a caption shows: nothing of what is only noted, sung or held.
 * @param label how a tick of its phrase is called: `7`
 */
export function calledWords(
  { kind, text, for: due }: Omit<Remark, 'id'>,
  label: PlaceLabel,
): string | undefined {
  switch (kind) {
    case 'say':
    case 'face':
      return text
    case 'pose':
      return 'stop'
    case 'breath':
      return `breathe ${text}`
    case 'prepare':
      return due === undefined ? text : `for ${label(due)}: ${text}`
    default:
      return undefined
  }
}

/** What a page says of a remark beside what is danced; nothing of what is said aloud. */
export function notedWords({ kind, text, hand }: Omit<Remark, 'id'>): string | undefined {
  switch (kind) {
    case 'words':
      return `words: “${text}”`
    case 'prop':
      return hand ? `${sideWord[hand]} hand: ${text}` : text
    case 'pose':
      return ['a picture', text].filter(Boolean).join(': ')
    case 'note':
      return text
    default:
      return undefined
  }
}
