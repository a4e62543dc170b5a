import { numberWord } from '../calling/numbers'
import { countOfTick, isSilent, placeIn, type Song, songTime, tickOfCount } from '../song/song'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { slowed, startingAt, steady, tempoOver } from '../time/timeMap'
import type { Played, PlayedSegment } from './played'
import { inOrder, type Sound } from './sounds'

/** What of a song is played, and how. */
export interface SongPlay {
  /** The first count that is played; the sound before the first of all goes along with it. */
  readonly from: number
  /** The count it is played to; to the end of the sound where it is absent. */
  readonly to?: number | undefined
  /** Of its own speed, 0.4 to 1.2. */
  readonly rate: number
  readonly isLooped: boolean
  /** Counts that are clicked before it begins. */
  readonly countIn: number
  /** Whether the numbers are said. */
  readonly isNumbered: boolean
}

/** The counts whose pace a count-in has. */
const PACE_COUNTS = 8

/** A song by itself: its sound, clicks on its counts, and their numbers. */
export function songPlayed(
  song: Song,
  { from, to, rate, isLooped, countIn, isNumbered }: SongPlay,
): Played {
  const { counts, media } = song
  const time = slowed(songTime(song), rate)
  const tickOf = (at: number) => tickOfCount(song, at)
  const begin = beginOf(song, { from, isLooped })
  const end = to === undefined ? time.tickAt(media.seconds / rate) : tickOf(to)
  const last = Math.min(to ?? counts.ms.length, counts.ms.length)
  const sounds = Array.from({ length: Math.max(0, last - from) }, (_, i) => from + i)
    .filter((at) => !isSilent(counts, at))
    .flatMap((at): readonly Sound[] => {
      const { count } = placeIn({ ...song, sections: [] }, at)
      const due = tick(tickOf(at) - begin)
      const click: Sound = { at: due, kind: count === 1 ? 'phrase' : 'count' }
      if (!isNumbered || count < 1) return [click]
      const say = { text: numberWord(count), isFast: false, onBeat: true }
      return [click, { at: due, kind: 'say', say }]
    })
  const own: PlayedSegment = {
    length: Math.max(TICKS_PER_COUNT, end - begin),
    time: startingAt(time, begin),
    sounds: inOrder(sounds),
    music: { mark: media.mark, from: Math.max(0, time.secondsAt(begin) * rate), rate },
  }
  const lead: PlayedSegment | undefined =
    countIn > 0
      ? {
          length: countIn * TICKS_PER_COUNT,
          time: steady(tempoOver(time, begin, begin + PACE_COUNTS * TICKS_PER_COUNT)),
          sounds: Array.from(
            { length: countIn },
            (_, i): Sound => ({ at: tick(i * TICKS_PER_COUNT), kind: 'count' }),
          ),
        }
      : undefined
  const segments = lead ? [lead, own] : [own]
  const starts = [0, lead?.length ?? 0]
  return {
    segments,
    loopFrom: isLooped ? segments.length - 1 : undefined,
    tickOf: ({ index, at }) => (starts[lead ? index : index + 1] ?? 0) + at,
  }
}

/** The tick it begins with; what sounds before the first count goes along with that. */
function beginOf(song: Song, { from, isLooped }: Pick<SongPlay, 'from' | 'isLooped'>): number {
  const begin = tickOfCount(song, from)
  return from === 0 && !isLooped ? Math.min(begin, Math.ceil(songTime(song).tickAt(0))) : begin
}

/** The count of a song that sounds at ticks into its own segment; not rounded. */
export const countPlayed = (song: Song, play: SongPlay, at: number): number =>
  countOfTick(song, beginOf(song, play) + at)
