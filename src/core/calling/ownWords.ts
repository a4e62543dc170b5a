import { folded } from '../record/folded'
import type { SpeechSeconds } from './called'
import { bankSeconds, type WordBanks } from './spokenWords'

/** A word the instructor said herself. */
export interface OwnWord {
  /** Mono. */
  readonly samples: Float32Array<ArrayBuffer>
  readonly rate: number
  /** Seconds until its vowel. */
  readonly onset: number
}

/** Own words by their text, folded. */
export type OwnWords = ReadonlyMap<string, OwnWord>

/** Own words as they are stored, each under its folded text; their samples are copied. */
export const ownWordsIn = (
  stored: readonly (Omit<OwnWord, 'samples'> & {
    readonly id: string
    readonly samples: Float32Array
  })[],
): OwnWords =>
  new Map(
    stored.map(({ id, samples, rate, onset }) => [
      id,
      { samples: new Float32Array(samples), rate, onset },
    ]),
  )

/** How long a text takes to say, by a recording of it or by some banks; undefined where a word is missing. */
export const secondsFrom =
  (banks: WordBanks, own: OwnWords = new Map()): SpeechSeconds =>
  (text, isFast) => {
    const recorded = own.get(folded(text))
    return recorded ? recorded.samples.length / recorded.rate : bankSeconds(banks)(text, isFast)
  }
