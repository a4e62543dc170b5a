import QuickLRU from 'quick-lru'
import type { SegmentMusic } from '../core/performance/played'
import { DUCK_SECONDS, DUCKED, FADE_SECONDS, WORD_SECONDS } from './ducking'
import { fromWhole, type HeldSound, PIECE, samplesOf, toWhole } from './held'
import type { Music } from './player'
import { heardFor } from './stretch'

/** Pieces are booked this far ahead, in seconds. */
const AHEAD_SECONDS = 2
/** A piece that came late begins that much after now. */
const LATE_SECONDS = 0.02
/** Pieces of another speed go over into the next over so many samples: they may have been worked out apart. */
const OVER = 11 * 128
/** Pieces of other speeds that are kept: four minutes or so. */
const MOST_PIECES = 64

type Rows = readonly Int16Array<ArrayBuffer>[]

/** A song that is to be heard, and how it is made slower. */
export interface Sources {
  readonly soundOf: (mark: string) => HeldSound | undefined
  readonly slow: (wish: {
    readonly mark: string
    readonly rate: number
    readonly speed: number
    readonly from: number
    readonly length: number
    readonly first: number
    readonly rows: Rows
  }) => Promise<Rows>
  /** Told once where this browser can't make a song slower. */
  readonly onCant: () => void
}

/** A song on an audio clock. */
export interface MusicDeck extends Music {
  /** Waits until the beginning of it is there. */
  readonly ready: (music: SegmentMusic) => Promise<void>
  /** 0 to 1. */
  readonly setLoud: (loud: number) => void
  /** It is quieter while a word is said from a second of the clock on. */
  readonly duck: (seconds: number) => void
}

/** Something that plays from a second of the clock to another. */
interface Run {
  readonly music: SegmentMusic
  readonly at: number
  /** The sample that sounds at `at`, of the song at its speed. */
  readonly from: number
  until: number
  readonly gain: GainNode
  readonly sources: Set<AudioBufferSourceNode>
  /** The piece that is to be booked next. */
  next: number
}

export function createMusic(
  context: BaseAudioContext,
  { soundOf, slow, onCant }: Sources,
): MusicDeck {
  const out = context.createGain()
  const ducked = context.createGain()
  out.connect(ducked).connect(context.destination)
  let runs: readonly Run[] = []
  const made = new QuickLRU<string, Promise<Rows | undefined>>({ maxSize: MOST_PIECES })
  const arrived = new QuickLRU<string, Rows | undefined>({ maxSize: MOST_PIECES })
  let hasTold = false

  /** A piece of a song at a speed; undefined until it is there. */
  function pieceOf({ mark, rate: speed }: SegmentMusic, index: number): Rows | undefined {
    const sound = soundOf(mark)
    if (!sound) return undefined
    if (speed === 1) return sound.pieces[index]
    const key = `${mark} ${speed} ${index}`
    if (!arrived.has(key)) void slowPiece(mark, sound, speed, index)
    return arrived.get(key)
  }

  function slowPiece(mark: string, sound: HeldSound, speed: number, index: number) {
    const key = `${mark} ${speed} ${index}`
    const known = made.get(key)
    if (known) return known
    // One more for the way over into the next.
    const [from, length] = [index * PIECE, PIECE + OVER]
    const [first, to] = heardFor(from, length, speed)
    const heard = samplesOf(sound, first, to).map((row) => Int16Array.from(row, toWhole))
    const wish = { mark, rate: sound.rate, speed, from, length, first, rows: heard }
    const making = slow(wish).then(
      (rows) => {
        arrived.set(key, rows)
        return rows
      },
      () => {
        made.delete(key)
        if (!hasTold) onCant()
        hasTold = true
        return undefined
      },
    )
    made.set(key, making)
    return making
  }

  /** The row of a piece as it sounds: where it was worked out apart it comes and goes. */
  function bufferOf({ rate: speed }: SegmentMusic, rows: Rows, index: number, rate: number) {
    const buffer = context.createBuffer(rows.length, rows[0]?.length ?? 1, rate)
    for (const [channel, row] of rows.entries()) {
      const samples = Float32Array.from(row, fromWhole)
      if (speed !== 1)
        for (let i = 0; i < OVER; i++) {
          const share = (i + 0.5) / OVER
          if (index > 0) samples[i] = (samples[i] as number) * share
          samples[PIECE + i] = (samples[PIECE + i] ?? 0) * (1 - share)
        }
      buffer.copyToChannel(samples, channel)
    }
    return buffer
  }

  function bookPieces(run: Run) {
    const sound = soundOf(run.music.mark)
    if (!sound) return
    const { rate } = sound
    const now = context.currentTime
    for (;;) {
      const begins = run.next * PIECE
      const due = run.at + (begins - run.from) / rate
      if (due > now + AHEAD_SECONDS || due >= run.until) return
      if (begins >= sound.length / run.music.rate) return
      const rows = pieceOf(run.music, run.next)
      if (!rows) return
      const start = Math.max(due, run.at, now === 0 ? 0 : now + LATE_SECONDS * Number(due < now))
      const source = context.createBufferSource()
      source.buffer = bufferOf(run.music, rows, run.next, rate)
      source.connect(run.gain)
      source.onended = () => run.sources.delete(source)
      run.sources.add(source)
      source.start(start, Math.max(0, start - due))
      if (Number.isFinite(run.until)) source.stop(run.until + FADE_SECONDS)
      run.next++
    }
  }

  function end(run: Run, seconds: number) {
    const { gain } = run.gain
    gain.cancelScheduledValues(seconds)
    gain.setValueAtTime(1, seconds)
    gain.linearRampToValueAtTime(0, seconds + FADE_SECONDS)
    for (const source of run.sources) source.stop(seconds + FADE_SECONDS)
  }

  return {
    book(music, at, until) {
      const sound = soundOf(music.mark)
      if (!sound || until <= at) return
      const gain = context.createGain()
      gain.connect(out)
      // On a sample of its own, so that its pieces meet without a gap.
      const on = Math.round(at * sound.rate) / sound.rate
      const from = Math.round((music.from / music.rate) * sound.rate)
      gain.gain.setValueAtTime(0, 0)
      gain.gain.setValueAtTime(0, on)
      gain.gain.linearRampToValueAtTime(1, on + FADE_SECONDS)
      if (Number.isFinite(until)) {
        gain.gain.setValueAtTime(1, Math.max(on + FADE_SECONDS, until))
        gain.gain.linearRampToValueAtTime(0, until + FADE_SECONDS)
      }
      const over = music.rate === 1 ? 0 : OVER
      const run: Run = {
        music,
        at: on,
        from,
        until,
        gain,
        sources: new Set(),
        next: Math.max(0, Math.floor((from - over) / PIECE)),
      }
      runs = [...runs, run]
      bookPieces(run)
    },
    takeBack(from) {
      const now = context.currentTime
      runs = runs.filter((run) => {
        if (run.until <= from) return true
        const seconds = Math.max(from, now)
        if (run.at >= seconds) {
          for (const source of run.sources) source.stop()
          run.gain.disconnect()
          return false
        }
        end(run, seconds)
        run.until = seconds
        return true
      })
    },
    goOn() {
      const now = context.currentTime
      for (const run of runs) bookPieces(run)
      runs = runs.filter((run) => {
        if (run.until + 1 > now) return true
        run.gain.disconnect()
        return false
      })
    },
    async ready(music) {
      const sound = soundOf(music.mark)
      if (!sound || music.rate === 1) return
      const index = Math.floor(((music.from / music.rate) * sound.rate) / PIECE)
      await slowPiece(music.mark, sound, music.rate, Math.max(0, index))
    },
    setLoud(loud) {
      out.gain.setTargetAtTime(loud, context.currentTime, 0.02)
    },
    duck(seconds) {
      ducked.gain.setTargetAtTime(DUCKED, Math.max(0, seconds - DUCK_SECONDS), DUCK_SECONDS / 3)
      ducked.gain.setTargetAtTime(1, seconds + WORD_SECONDS, DUCK_SECONDS / 3)
    },
  }
}
