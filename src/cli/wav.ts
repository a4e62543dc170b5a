import { closeSync, openSync, readSync } from 'node:fs'
import { gathering, LISTEN_RATE } from '../core/beats/resample'
import { UserError } from '../core/errors'

/** Sound of a file as one row of samples, its channels mixed, at the rate it is listened to. */
export interface Sound {
  readonly samples: Float32Array
  /** What was wrong with the file, though it could be read. */
  readonly remark?: string
}

/** How a file of sound is written. */
interface Format {
  readonly isFloat: boolean
  readonly channels: number
  readonly rate: number
  /** Bytes of a sample of one channel. */
  readonly bytes: number
}

const PCM = 1
const FLOAT = 3
const EXTENSIBLE = 0xfffe
const MOST_CHANNELS = 8
/** Longer files are read to here, in seconds. */
export const MOST_SECONDS = 4 * 3600
const PIECE_BYTES = 1 << 20
/** A length that was not known when writing began. */
const UNKNOWN = 0xffffffff

/**
 * Reads a WAV file piece by piece.
 * @throws UserError where it is none, or of a kind that isn't read
 */
export function readWav(path: string): Sound {
  const file = openSync(path, 'r')
  try {
    return soundIn((at, length) => {
      const bytes = new Uint8Array(length)
      return bytes.subarray(0, readSync(file, bytes, 0, length, at))
    })
  } finally {
    closeSync(file)
  }
}

type Read = (at: number, length: number) => Uint8Array

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
const word = (bytes: Uint8Array, at: number) => String.fromCharCode(...bytes.subarray(at, at + 4))

function soundIn(read: Read): Sound {
  const head = read(0, 12)
  if (head.length === 0)
    throw new UserError('This file is empty.', 'Check that it was copied whole.')
  if (head.length < 12 || !/RIFF|RF64/.test(word(head, 0)) || word(head, 8) !== 'WAVE')
    throw new UserError('This is no WAV file.', 'Save the sound as WAV first.')
  let format: Format | undefined
  for (let at = 12; ; ) {
    const chunk = read(at, 8)
    if (chunk.length < 8) break
    const name = word(chunk, 0)
    const length = view(chunk).getUint32(4, true)
    if (name === 'fmt ') format = formatOf(read(at + 8, Math.min(length, 64)))
    if (name === 'data') {
      if (!format) break
      return samplesOf(read, at + 8, length, format)
    }
    // Chunks begin at even places.
    at += 8 + length + (length % 2)
  }
  throw new UserError('No sound was found in this WAV file.', 'Save the sound as WAV anew.')
}

function formatOf(bytes: Uint8Array): Format {
  if (bytes.length < 16)
    throw new UserError('This WAV file does not say how it is written.', 'Save it as WAV anew.')
  const data = view(bytes)
  const tag = data.getUint16(0, true)
  const kind = tag === EXTENSIBLE && bytes.length >= 26 ? data.getUint16(24, true) : tag
  const channels = data.getUint16(2, true)
  const rate = data.getUint32(4, true)
  const size = data.getUint16(14, true) / 8
  const isFloat = kind === FLOAT
  const isKnown = isFloat ? size === 4 || size === 8 : kind === PCM && [1, 2, 3, 4].includes(size)
  if (!isKnown || channels < 1 || channels > MOST_CHANNELS || rate < 8000 || rate > 192_000)
    throw new UserError(
      'This WAV file is written in a way that is not read here.',
      'Save it as PCM of 16 bits, one or two channels.',
    )
  return { isFloat, channels, rate, bytes: size }
}

function samplesOf(read: Read, from: number, length: number, format: Format): Sound {
  const { channels, rate, bytes } = format
  const frame = channels * bytes
  const most = Math.min(length === UNKNOWN ? Infinity : length, MOST_SECONDS * rate * frame)
  const gathered = gathering(rate)
  let done = 0
  const piece = Math.floor(PIECE_BYTES / frame) * frame
  while (done < most) {
    const raw = read(from + done, Math.min(piece, most - done))
    const frames = Math.floor(raw.length / frame)
    if (frames === 0) break
    gathered.take(mixed(view(raw), frames, format))
    done += frames * frame
    if (raw.length < piece) break
  }
  const samples = gathered.all()
  const isCut = length !== UNKNOWN && done + frame <= Math.min(length, most)
  const isLong = length !== UNKNOWN && length > most
  return {
    samples,
    ...(isCut && {
      remark: `The file ends early, at ${(samples.length / LISTEN_RATE).toFixed(0)} s.`,
    }),
    ...(isLong && { remark: 'Only the first four hours are read.' }),
  }
}

function mixed(data: DataView, frames: number, { isFloat, channels, bytes }: Format): Float32Array {
  const sample = (at: number): number => {
    if (isFloat) return bytes === 4 ? data.getFloat32(at, true) : data.getFloat64(at, true)
    if (bytes === 1) return (data.getUint8(at) - 128) / 128
    if (bytes === 2) return data.getInt16(at, true) / 32_768
    if (bytes === 3) return (data.getUint16(at, true) + data.getInt8(at + 2) * 65_536) / 8_388_608
    return data.getInt32(at, true) / 2_147_483_648
  }
  const row = new Float32Array(frames)
  for (let i = 0; i < frames; i++) {
    let sum = 0
    for (let channel = 0; channel < channels; channel++)
      sum += sample((i * channels + channel) * bytes)
    const value = sum / channels
    row[i] = Number.isFinite(value) ? value : 0
  }
  return row
}
