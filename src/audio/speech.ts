import type { SpeechSeconds, Spoken } from '../core/calling/called'
import { folded } from '../core/record/folded'
import type { Sample, Speak } from './sounds'
import fastUrl from './voice/fast.ogg?url'
import normalUrl from './voice/normal.ogg?url'
import table from './voice/words.json'

/** Where a word lies in its bank, how long it is, and when its vowel begins, in seconds. */
type Place = readonly number[]
type Bank = 'normal' | 'fast'

const WORDS: ReadonlyMap<string, Readonly<Record<Bank, Place>>> = new Map(
  Object.entries(table).map(([word, places]) => [folded(word), places]),
)

/** A pause between the words of a cue, in seconds; they are cut closely already. */
const BETWEEN = 0.02

/** A word the instructor said herself. */
export interface Recording {
  /** Mono. */
  readonly samples: Float32Array<ArrayBuffer>
  readonly rate: number
  /** Seconds until its vowel. */
  readonly onset: number
}

const wordsOf = (text: string): readonly string[] =>
  folded(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** How long a text takes to say, by the instructor's own recording or by the bank; undefined where a word is missing. */
export const speechSeconds =
  (own: ReadonlyMap<string, Recording> = new Map()): SpeechSeconds =>
  (text, isFast) => {
    const recorded = own.get(folded(text))
    if (recorded) return recorded.samples.length / recorded.rate
    const words = wordsOf(text)
    if (words.length === 0) return undefined
    let seconds = (words.length - 1) * BETWEEN
    for (const word of words) {
      const place = WORDS.get(word)
      if (!place) return undefined
      seconds += place[isFast ? 'fast' : 'normal'][1] ?? 0
    }
    return seconds
  }

/** Whether there is a word for all of a text. */
export const hasWords = (text: string): boolean => speechSeconds()(text, false) !== undefined

/** Both banks, decoded at a rate. */
type Banks = Readonly<Record<Bank, Float32Array>>

/** Puts a text together from the bank, or takes the instructor's own recording. */
export function speakFrom(
  banks: Banks,
  bankRate: number,
  own: ReadonlyMap<string, Recording>,
): Speak {
  return ({ text, isFast, onBeat }: Spoken, rate): Sample | undefined => {
    const recorded = own.get(folded(text))
    if (recorded)
      return {
        samples: resampled(recorded.samples, recorded.rate, rate),
        early: onBeat ? recorded.onset : 0,
      }
    const bank: Bank = isFast ? 'fast' : 'normal'
    const places = wordsOf(text).map((word) => WORDS.get(word)?.[bank])
    if (places.length === 0 || places.some((place) => place === undefined)) return undefined
    const seconds = speechSeconds()(text, isFast) ?? 0
    const joined = new Float32Array(Math.ceil(seconds * bankRate))
    let at = 0
    for (const [start = 0, length = 0] of places.flatMap((place) => (place ? [place] : []))) {
      const from = Math.round(start * bankRate)
      joined.set(
        banks[bank]
          .subarray(from, from + Math.round(length * bankRate))
          .slice(0, joined.length - at),
        at,
      )
      at = Math.min(joined.length, at + Math.round((length + BETWEEN) * bankRate))
    }
    return { samples: resampled(joined, bankRate, rate), early: onBeat ? (places[0]?.[2] ?? 0) : 0 }
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

/** Reads the banks that ship with the app. @throws Error when they can't be read. */
export async function loadBanks(context: BaseAudioContext): Promise<Banks> {
  const read = async (url: string) => {
    const answer = await fetch(url)
    if (!answer.ok) throw new Error(`no voice at ${url}`)
    const buffer = await context.decodeAudioData(await answer.arrayBuffer())
    return buffer.getChannelData(0)
  }
  const [normal, fast] = await Promise.all([read(normalUrl), read(fastUrl)])
  return { normal, fast }
}

const FRAME_SECONDS = 0.005

/** Cuts the silence off a recording and finds its vowel: the first loud frame under 900 Hz. */
export function trimmedRecording(samples: Float32Array, rate: number): Recording | undefined {
  const size = Math.max(1, Math.round(rate * FRAME_SECONDS))
  const loudness = (of: Float32Array) =>
    Array.from({ length: Math.floor(of.length / size) }, (_, i) =>
      Math.sqrt(of.subarray(i * size, (i + 1) * size).reduce((sum, x) => sum + x * x, 0) / size),
    )
  const frames = loudness(samples)
  const peak = Math.max(0, ...frames)
  // Quieter than this is the noise of a room.
  if (peak < 0.004) return undefined
  const first = frames.findIndex((frame) => frame > peak * 0.05)
  const last = frames.findLastIndex((frame) => frame > peak * 0.05)
  const cut = new Float32Array(samples.subarray(first * size, (last + 1) * size))
  const share = 1 - Math.exp((-2 * Math.PI * 900) / rate)
  let low = 0
  const dull = loudness(
    cut.map((x) => {
      low += share * (x - low)
      return low
    }),
  )
  const most = Math.max(...dull)
  const onset =
    Math.max(
      0,
      dull.findIndex((frame) => frame > most * 0.45),
    ) * FRAME_SECONDS
  const scale = Math.min(8, 0.7 / Math.max(...cut.map(Math.abs)))
  return { samples: cut.map((x) => x * scale), rate, onset }
}
