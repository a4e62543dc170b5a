import { UserError } from '../core/errors'
import { hexOf } from '../core/record/hex'
import { type HeldSound, holding } from './held'

/** Sound that is longer, or a file that is larger, is read piece by piece. */
const PIECEWISE_SECONDS = 12 * 60
const PIECEWISE_BYTES = 100_000_000
/** Sound that is longer is read in part only. */
export const MOST_SECONDS = 60 * 60
/** A file that says it is longer than it is by more than this ends early. */
const EARLY_SECONDS = 1
/** Samples that are put away at once, between which the page can breathe. */
const SLICE = 1 << 16
/** Slices between two breaths. */
const SLICES = 8

/** A part of a long file, in seconds. */
export interface Part {
  readonly from: number
  readonly to: number
}

/** What a file says of itself. */
export interface FileFacts {
  readonly seconds: number
  readonly hasPicture: boolean
  /** It is shorter than it says. */
  readonly isCut: boolean
}

export interface DecodedSound {
  readonly sound: HeldSound
  /** What was wrong with the file, though it could be read. */
  readonly remark?: string
}

const notSound = () =>
  new UserError(
    'This is not a sound or video file this browser can read.',
    'Try mp3, m4a, ogg, flac or wav.',
  )
const locked = () =>
  new UserError(
    'It is locked or in a format this browser can’t open.',
    'Use a copy you may play anywhere.',
  )

const clock = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`

/** Samples a second at which this machine plays: what is decoded to that need not be changed again. */
let known: Promise<number> | undefined
function rateHere(): Promise<number> {
  known ??= (async () => {
    const context = new AudioContext()
    const { sampleRate } = context
    await context.close()
    return sampleRate
  })()
  return known
}

const bunny = () => import('mediabunny')

/** What a file is, is told by so much of its beginning. */
const BEGINNING = 1 << 20

/** Opens a file; undefined where it is of no kind that is known. */
async function opened(file: Blob) {
  const { ALL_FORMATS, BlobSource, Input } = await bunny()
  const inputOf = (part: Blob) => new Input({ formats: ALL_FORMATS, source: new BlobSource(part) })
  // A large file of another kind would be looked through to its end.
  if (!(await inputOf(file.slice(0, BEGINNING)).canRead())) return undefined
  const input = inputOf(file)
  return { input, track: await input.getPrimaryAudioTrack() }
}

/** The length a WAV file says it has, in bytes; undefined for any other. */
async function bytesSaid(file: Blob): Promise<number | undefined> {
  const head = new DataView(await file.slice(0, 8).arrayBuffer())
  return head.byteLength === 8 && head.getUint32(0) === 0x52494646
    ? head.getUint32(4, true) + 8
    : undefined
}

/**
 * What a file says of itself, without its sound being read.
 * @throws UserError where it is no sound
 */
export async function factsOf(file: Blob): Promise<FileFacts> {
  if (file.size === 0)
    throw new UserError(
      'This file is empty.',
      'Check that it was copied whole, then open it again.',
    )
  const known = await opened(file).catch(() => undefined)
  // The browser may know what the reader does not.
  if (!known && file.size > PIECEWISE_BYTES) throw notSound()
  if (!known) return { seconds: 0, hasPicture: false, isCut: false }
  const { input, track } = known
  if (!track)
    throw new UserError(
      'There is no sound in it.',
      'Open a file that has sound: a song, or a film of it.',
    )
  const seconds = await track.computeDuration().catch(() => 0)
  const picture = await input.getPrimaryVideoTrack().catch(() => null)
  const said = await bytesSaid(file)
  return {
    seconds,
    hasPicture: picture !== null,
    isCut: said !== undefined && said > file.size + BEGINNING / 1024,
  }
}

/**
 * Decodes the sound of a file.
 * @param part of it, where it is too long to be held as a whole
 * @throws UserError where it can't be; AbortError when stopped
 */
export async function decodeSound(
  file: Blob,
  { seconds, isCut }: FileFacts,
  {
    part,
    signal,
    onShare,
  }: {
    readonly part?: Part | undefined
    readonly signal: AbortSignal
    readonly onShare: (share: number) => void
  },
): Promise<DecodedSound> {
  const isLong = seconds > PIECEWISE_SECONDS || file.size > PIECEWISE_BYTES
  const sound =
    isLong || part
      ? await piecewise(file, part ?? { from: 0, to: seconds }, signal, onShare)
      : await atOnce(file, signal)
  const heard = sound.length / sound.rate
  if (heard === 0) throw notSound()
  const wanted = part ? part.to - part.from : seconds
  return {
    sound,
    ...((isCut || wanted > heard + EARLY_SECONDS) && {
      remark: `The file ends early, at ${clock(heard)}.`,
    }),
  }
}

/** When the sound of a film begins, in seconds of the film: a camera may be heard later than it is seen. */
export const soundBegins = async (film: Blob): Promise<number> =>
  (await (await opened(film))?.track?.getFirstTimestamp()) ?? 0

async function atOnce(file: Blob, signal: AbortSignal): Promise<HeldSound> {
  const rate = await rateHere()
  const bytes = await file.arrayBuffer()
  signal.throwIfAborted()
  const context = new OfflineAudioContext(1, 1, rate)
  const buffer = await context.decodeAudioData(bytes).catch(async () => {
    throw (await isKnown(file)) ? locked() : notSound()
  })
  signal.throwIfAborted()
  const { numberOfChannels, length } = buffer
  const channels = Math.min(2, numberOfChannels)
  const taken = holding(rate, channels)
  const rows = Array.from({ length: channels }, (_, c) => buffer.getChannelData(c))
  for (let at = 0, k = 1; at < length; at += SLICE, k++) {
    taken.take(rows.map((row) => row.subarray(at, at + SLICE)))
    if (k % SLICES > 0) continue
    await breath()
    signal.throwIfAborted()
  }
  return taken.all()
}

const isKnown = async (file: Blob): Promise<boolean> =>
  opened(file).then(
    (known) => known?.track !== undefined && known.track !== null,
    () => false,
  )

async function piecewise(
  file: Blob,
  { from, to }: Part,
  signal: AbortSignal,
  onShare: (share: number) => void,
): Promise<HeldSound> {
  const { AudioBufferSink } = await bunny()
  const track = (await opened(file))?.track
  if (!track || !(await track.canDecode())) throw locked()
  let taken: ReturnType<typeof holding> | undefined
  let done = 0
  for await (const { buffer, timestamp } of new AudioBufferSink(track).buffers(from, to)) {
    signal.throwIfAborted()
    const channels = Math.min(2, buffer.numberOfChannels)
    taken ??= holding(buffer.sampleRate, channels)
    // What was decoded before the part begins is not of it.
    const skipped = Math.max(0, Math.round((from - timestamp) * buffer.sampleRate))
    taken.take(
      Array.from({ length: channels }, (_, c) => buffer.getChannelData(c).subarray(skipped)),
    )
    if (++done % SLICES > 0) continue
    onShare(Math.min(1, (timestamp - from) / Math.max(1, to - from)))
    await breath()
  }
  if (!taken) throw locked()
  return taken.all()
}

/** Lets the page draw and hear. */
const breath = () => new Promise((done) => setTimeout(done))

/** Bytes at each end of a file that tell it from others. */
const TOLD_BYTES = 4 << 20

/** What tells a file from all others: a hash of its size, its beginning and its end; of any file in little room. */
export async function markOf(file: Blob): Promise<string> {
  const size = new DataView(new ArrayBuffer(8))
  size.setBigUint64(0, BigInt(file.size))
  const ends = [file.slice(0, TOLD_BYTES), file.slice(Math.max(0, file.size - TOLD_BYTES))]
  const bytes = await new Blob([size.buffer, ...ends]).arrayBuffer()
  return hexOf(await crypto.subtle.digest('SHA-256', bytes))
}
