import { type OwnWord as Recording, secondsFrom } from '../core/calling/ownWords'
import type { Bank, WordBanks, WordPlace } from '../core/calling/spokenWords'
import { folded } from '../core/record/folded'
import type { Speak } from './sounds'
import fastUrl from './voice/fast.ogg?url'
import normalUrl from './voice/normal.ogg?url'
import table from './voice/words.json'
import { speakWith } from './wordBank'

export type { OwnWord as Recording } from '../core/calling/ownWords'

/** The words that ship with the app. */
export const SHIPPED_WORDS: WordBanks = new Map(
  Object.entries<Readonly<Record<Bank, WordPlace>>>(table).map(([word, places]) => [
    folded(word),
    places,
  ]),
)

/** How long a text takes to say, by the instructor's own recording or by the bank; undefined where a word is missing. */
export const speechSeconds = (own?: ReadonlyMap<string, Recording>) =>
  secondsFrom(SHIPPED_WORDS, own)

/** Whether there is a word for all of a text. */
export const hasWords = (text: string): boolean => speechSeconds()(text, false) !== undefined

/** Both banks, decoded at a rate. */
type Banks = Readonly<Record<Bank, Float32Array>>

/** Puts a text together from the bank, or takes the instructor's own recording. */
export const speakFrom = (
  samples: Banks,
  rate: number,
  own: ReadonlyMap<string, Recording>,
): Speak => speakWith(SHIPPED_WORDS, { samples, rate }, own)

/** The banks as they are stored. @throws Error when they can't be read. */
export async function bankFiles(): Promise<Readonly<Record<Bank, ArrayBuffer>>> {
  const read = async (url: string) => {
    const answer = await fetch(url)
    if (!answer.ok) throw new Error(`no voice at ${url}`)
    return answer.arrayBuffer()
  }
  const [normal, fast] = await Promise.all([read(normalUrl), read(fastUrl)])
  return { normal, fast }
}

/** Reads the banks that ship with the app. @throws Error when they can't be read. */
export async function loadBanks(context: BaseAudioContext): Promise<Banks> {
  const files = await bankFiles()
  const [normal, fast] = await Promise.all(
    [files.normal, files.fast].map(async (file) =>
      (await context.decodeAudioData(file)).getChannelData(0),
    ),
  )
  if (!normal || !fast) throw new Error('no voice')
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
