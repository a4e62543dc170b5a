import type { Music } from '../audio/player'
import type { PageSong } from '../core/practice/pageData'
import { fingerprintOf, isSameSong } from '../core/song/fingerprint'

/** The student's own copy of a song, on her machine only. */
export interface OwnSong {
  /** It is the very song the counts were found in; else where 1 is must be tapped. */
  readonly isSame: boolean
  /** Plays it along with what is danced. */
  readonly music: Music
  /** Plays all of it, so that 1 can be tapped. @returns the second that is heard */
  readonly listen: () => () => number
  readonly stop: () => void
}

/**
 * Reads a song of the student's.
 * @throws where the browser can't read the file
 */
export async function ownSong(
  file: Blob,
  known: PageSong,
  context: AudioContext,
): Promise<OwnSong> {
  const buffer = await context.decodeAudioData(await file.arrayBuffer())
  const heard = {
    seconds: buffer.duration,
    print: fingerprintOf(buffer.getChannelData(0), buffer.sampleRate),
  }
  const booked = new Map<AudioBufferSourceNode, number>()
  const book = (when: number, from: number, seconds?: number) => {
    const source = context.createBufferSource()
    source.buffer = buffer
    source.connect(context.destination)
    source.onended = () => booked.delete(source)
    source.start(when, Math.max(0, from), seconds)
    booked.set(source, when)
  }
  const takeBack = (from: number) => {
    for (const [source, when] of booked)
      if (when >= from || from < context.currentTime) source.stop()
      else source.stop(from)
  }
  return {
    isSame: isSameSong(known, heard),
    music: {
      book: (music, at, until) => {
        // What lies before the beginning of the file is silence.
        const late = Math.max(0, -music.from)
        book(at + late, music.from + late, Math.max(0, until - at - late))
      },
      takeBack,
      goOn: () => {},
    },
    listen() {
      const begun = context.currentTime
      book(begun, 0)
      return () => context.currentTime - begun - (context.outputLatency || 0)
    },
    stop: () => takeBack(Number.NEGATIVE_INFINITY),
  }
}
