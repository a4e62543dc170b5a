import { base64 } from './base64'
import { OPUS_RATE, readOpus, samplesOf, writeOpus } from './ogg'

/** Where a word lies, how long it is and when its vowel begins, in seconds. */
type Place = readonly number[]

/** A bank with only some of its words. */
export interface CutBank {
  /** An Ogg file, in base64. */
  readonly ogg: string
  readonly words: Readonly<Record<string, Place>>
}

/** A decoder that begins in the middle has found its way after so long, in seconds. */
const LEAD_SECONDS = 0.08

/**
 * Cuts some words out of a bank, packet by packet: nothing is encoded anew, so they sound as they did.
 * @param places where each word lies in the bank
 */
export function cutBank(file: Uint8Array, places: ReadonlyMap<string, Place>): CutBank {
  const stream = readOpus(file)
  const starts: number[] = []
  let end = 0
  for (const packet of stream.packets) {
    starts.push(end)
    end += samplesOf(packet)
  }
  /** The packet a sample is in. */
  const packetAt = (sample: number) =>
    Math.max(
      0,
      starts.findLastIndex((start) => start <= sample),
    )
  const packets: Uint8Array[] = []
  const words: Record<string, Place> = {}
  let written = 0
  for (const [word, [start = 0, length = 0, onset = 0]] of places) {
    const from = start * OPUS_RATE + stream.skip
    const first = packetAt(from - LEAD_SECONDS * OPUS_RATE)
    const last = packetAt(from + length * OPUS_RATE)
    const own = stream.packets.slice(first, last + 1)
    words[word] = [(written + from - (starts[first] ?? 0) - stream.skip) / OPUS_RATE, length, onset]
    for (const packet of own) {
      packets.push(packet)
      written += samplesOf(packet)
    }
  }
  return { ogg: base64(writeOpus({ ...stream, packets })), words }
}
