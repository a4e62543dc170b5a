import { folded } from '../record/folded'
import type { SpeechSeconds } from './called'

/** Where a word lies in its bank, how long it is, and when its vowel begins, in seconds. */
export type WordPlace = readonly number[]
/** Words are said at two speeds. */
export type Bank = 'normal' | 'fast'
/** Each word, folded, with its places; where a bank has it not, it can't be said so. */
export type WordBanks = ReadonlyMap<string, Readonly<Partial<Record<Bank, WordPlace>>>>

/** A pause between the words of a cue, in seconds; they are cut closely already. */
export const BETWEEN_WORDS = 0.02

/** The words a voice says of a text, without case and accents. */
export const spokenWords = (text: string): readonly string[] =>
  folded(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** The bank a text is said from. */
export const bankFor = (isFast: boolean): Bank => (isFast ? 'fast' : 'normal')

/** How long a text takes to say by some banks; undefined where a word is missing. */
export const bankSeconds =
  (banks: WordBanks): SpeechSeconds =>
  (text, isFast) => {
    const words = spokenWords(text)
    if (words.length === 0) return undefined
    let seconds = (words.length - 1) * BETWEEN_WORDS
    for (const word of words) {
      const place = banks.get(word)?.[bankFor(isFast)]
      if (!place) return undefined
      seconds += place[1] ?? 0
    }
    return seconds
  }
