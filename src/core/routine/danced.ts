import type { CallMode, SpeechSeconds } from '../calling/called'
import { aloneFrom } from '../combination/dancing'
import { judgedAsWritten } from '../findings/check'
import { type Finding, severityOf } from '../findings/finding'
import type { House } from '../house/house'
import type { Vocabulary } from '../moves/vocabulary'
import { type Performance, performanceOf } from '../performance/performance'
import { songFrom } from '../performance/songFrom'
import { SILENT, stretchOf } from '../performance/stretches'
import { type Danced, danced } from '../simulate/danced'
import { type Song, songTime, tickOfCount } from '../song/song'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { startingAt, type TimeMap } from '../time/timeMap'
import { songCalls } from './calls'
import { isOwn, type SongFact } from './fit'
import { endOfLaid, type Laid } from './laid'
import type { LaidPass } from './turns'

/** How the ticks of a routine go by: its first one is the first count that is danced to. */
const routineTime = ({ from }: Laid, song: Song): TimeMap =>
  startingAt(songTime(song), tickOfCount(song, from))

/** A routine danced by the song's own time: its tempo is what the song has at each place. */
export const dancedTo = (laid: Laid, song: Song, vocabulary: Vocabulary, house: House): Danced =>
  danced(laid.combination, vocabulary, house, routineTime(laid, song))

/** What only matters where a dance follows itself, which a routine does not. */
const isOfItself = ({ code }: Finding): boolean => code.startsWith('join.')

/** What goes wrong in class, and counts that are too much at the tempo the song has there. */
const isOfSong = (finding: Finding): boolean =>
  ['fault', 'snag'].includes(severityOf(finding)) || finding.code === 'load.high'

/**
 * What goes wrong where pieces meet, or where the song is too fast; what a combination has by
 * itself is said where it is written.
 * @param ownOf what is found in a combination by itself, at its own tempo, on the side it is danced
 */
export function foundIn(
  dance: Danced,
  laid: Laid,
  ownOf: (pass: LaidPass) => readonly Finding[],
): readonly SongFact[] {
  return judgedAsWritten(dance)
    .filter((finding) => isOfSong(finding))
    .filter((finding) => !isOfItself(finding))
    .filter((finding) => !isOwn(finding, laid, ownOf))
    .map((finding): SongFact => {
      const pass = laid.passes[finding.spot.pass]
      const count = Math.floor(finding.spot.at / TICKS_PER_COUNT)
      return {
        code: 'song.dance',
        at: (pass?.at ?? laid.from) + count,
        finding,
        ...(pass?.piece && { piece: pass.piece }),
      }
    })
}

/** What of a routine is performed, and how. */
export interface RoutinePlay {
  /** Places of the song's counts, half-open. */
  readonly from: number
  readonly to: number
  /** Of the song's own speed, 0.4 to 1.2. */
  readonly rate: number
  readonly isLooped: boolean
  /** Counts that are clicked before the music. */
  readonly countIn?: number | undefined
  readonly mode?: CallMode
  readonly speech?: SpeechSeconds
}

/** A routine as it is performed: with its song, from one of its counts on. */
export function routinePlayed(
  dance: Danced,
  laid: Laid,
  song: Song,
  { from, to, rate, isLooped, countIn, mode = 'none', speech = SILENT }: RoutinePlay,
): Performance {
  const begin = TICKS_PER_COUNT * (from - laid.from)
  // To its last count is to the end of what is heard; again and again it is counts.
  const end = to >= song.counts.ms.length && !isLooped ? endOfLaid(laid) : to
  const range = { from: tick(begin), to: tick(TICKS_PER_COUNT * (end - laid.from)) }
  const dancing = aloneFrom(laid.combination.lead)
  return performanceOf(
    [stretchOf(dance, dancing, { range, countIn, mode, song: songCalls(song, laid) })],
    { ...songFrom(song, from, rate), speech },
    isLooped ? (countIn === undefined ? 0 : 1) : undefined,
  )
}
