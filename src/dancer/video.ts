import {
  AudioBufferSource,
  type AudioCodec,
  BufferTarget,
  CanvasSource,
  getFirstEncodableAudioCodec,
  getFirstEncodableVideoCodec,
  Mp4OutputFormat,
  Output,
  QUALITY_HIGH,
  type VideoCodec,
  WebMOutputFormat,
} from 'mediabunny'
import { UserError } from '../core/errors'

/** What a film is made of; the canvas is drawn by `draw` before each frame is taken. */
export interface Film {
  readonly canvas: HTMLCanvasElement
  readonly seconds: number
  readonly framesASecond: number
  readonly draw: (seconds: number) => void
  /** The sound of all of it; absent where none is wanted. */
  readonly sound: AudioBuffer | undefined
}

/** A kind of film file, and what it is made of. */
export interface FilmFormat {
  readonly name: 'MP4' | 'WebM'
  readonly video: VideoCodec
  readonly audio: AudioCodec | undefined
}

/**
 * What this browser writes: MP4 where it has both encoders for it, since that plays everywhere, else WebM.
 * @returns undefined where it writes no video
 */
export async function formatHere(size: {
  readonly width: number
  readonly height: number
}): Promise<FilmFormat | undefined> {
  const [avc, aac] = await Promise.all([
    getFirstEncodableVideoCodec(['avc'], size),
    getFirstEncodableAudioCodec(['aac']),
  ])
  if (avc && aac) return { name: 'MP4', video: avc, audio: aac }
  const video = await getFirstEncodableVideoCodec(['vp9', 'vp8', 'av1'], size)
  if (!video) return undefined
  return { name: 'WebM', video, audio: (await getFirstEncodableAudioCodec(['opus'])) ?? undefined }
}

/**
 * Encodes a film in the browser, frame by frame, as fast as it can.
 * @param told is told the share that is done, 0 to 1.
 * @param signal stops it: then nothing comes back.
 * @throws UserError where the browser has no encoder.
 */
export async function writeFilm(
  film: Film,
  told: (share: number) => void,
  signal: AbortSignal,
): Promise<Blob | undefined> {
  const { canvas, seconds, framesASecond, draw, sound } = film
  const { width, height } = canvas
  const made = await formatHere({ width, height })
  if (!made)
    throw new UserError(
      'This browser cannot write video.',
      'Save the key poses as a picture instead, or film in another browser.',
    )
  const format = made.name === 'MP4' ? new Mp4OutputFormat() : new WebMOutputFormat()
  const target = new BufferTarget()
  const output = new Output({ format, target })
  const video = new CanvasSource(canvas, { codec: made.video, bitrate: QUALITY_HIGH })
  output.addVideoTrack(video, { frameRate: framesASecond })
  const audio =
    sound && made.audio ? new AudioBufferSource({ codec: made.audio, bitrate: 96_000 }) : undefined
  if (audio) output.addAudioTrack(audio)
  await output.start()
  if (audio && sound) await audio.add(sound)
  audio?.close()
  const frames = Math.round(seconds * framesASecond)
  for (let i = 0; i < frames; i++) {
    if (signal.aborted) {
      await output.cancel()
      return undefined
    }
    draw(i / framesASecond)
    await video.add(i / framesASecond, 1 / framesASecond)
    told((i + 1) / frames)
    // The page stays awake: it may want to stop this.
    if (i % 4 === 3) await new Promise((done) => setTimeout(done))
  }
  video.close()
  await output.finalize()
  return target.buffer ? new Blob([target.buffer], { type: format.mimeType }) : undefined
}
