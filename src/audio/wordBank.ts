import type { Spoken } from '../core/calling/called'
import type { OwnWords } from '../core/calling/ownWords'
import {
  type Bank,
  BETWEEN_WORDS,
  bankFor,
  bankSeconds,
  spokenWords,
  type WordBanks,
} from '../core/calling/spokenWords'
import { folded } from '../core/record/folded'
import type { Sample, Speak } from './sounds'

/** What the banks sound like, decoded at a rate. */
export interface Decoded {
  readonly samples: Readonly<Partial<Record<Bank, Float32Array>>>
  readonly rate: number
}

/** Puts a text together from some banks, or takes a recording of it. */
export function speakWith(banks: WordBanks, decoded: Decoded, own: OwnWords = new Map()): Speak {
  const secondsOf = bankSeconds(banks)
  return ({ text, isFast, onBeat }: Spoken, rate): Sample | undefined => {
    const recorded = own.get(folded(text))
    if (recorded)
      return {
        samples: resampled(recorded.samples, recorded.rate, rate),
        early: onBeat ? recorded.onset : 0,
      }
    const bank = bankFor(isFast)
    const heard = decoded.samples[bank]
    const seconds = secondsOf(text, isFast)
    if (!heard || seconds === undefined) return undefined
    const places = spokenWords(text).flatMap((word) => {
      const place = banks.get(word)?.[bank]
      return place ? [place] : []
    })
    const joined = new Float32Array(Math.ceil(seconds * decoded.rate))
    let at = 0
    for (const [start = 0, length = 0] of places) {
      const from = Math.round(start * decoded.rate)
      joined.set(
        heard.subarray(from, from + Math.round(length * decoded.rate)).slice(0, joined.length - at),
        at,
      )
      at = Math.min(joined.length, at + Math.round((length + BETWEEN_WORDS) * decoded.rate))
    }
    return {
      samples: resampled(joined, decoded.rate, rate),
      early: onBeat ? (places[0]?.[2] ?? 0) : 0,
    }
  }
}

/** The same sound at another rate, straight between its samples. */
function resampled(
  samples: Float32Array<ArrayBuffer>,
  from: number,
  to: number,
): Float32Array<ArrayBuffer> {
  if (from === to) return samples
  const result = new Float32Array(Math.round((samples.length * to) / from))
  for (let i = 0; i < result.length; i++) {
    const place = (i * from) / to
    const low = Math.floor(place)
    const share = place - low
    result[i] = (samples[low] ?? 0) * (1 - share) + (samples[low + 1] ?? 0) * share
  }
  return result
}
