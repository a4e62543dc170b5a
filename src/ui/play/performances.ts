import type { Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { aloneFrom, bothOf } from '../../core/combination/dancing'
import { type Performance, performanceOf } from '../../core/performance/performance'
import { songFrom } from '../../core/performance/songFrom'
import { loopOf, SILENT, stretchOf, wholeOf } from '../../core/performance/stretches'
import type { Song } from '../../core/song/song'
import type { Tempo } from '../../core/time/tempo'
import { endOf, type Range, TICKS_PER_COUNT, tick } from '../../core/time/time'
import { steady } from '../../core/time/timeMap'
import { dancedOf } from '../stores/checked'
import type { Selection } from '../stores/state'

/** Which side is danced: one of them, or the lead side and then the other in turn. */
export type SideMode = Side | 'turn'
export type LoopMode = 'all' | 'phrase' | 'selection'

export interface PlayChoice {
  readonly sides: SideMode
  readonly loop: LoopMode
  readonly tempo: Tempo
  /** Share of that tempo: 1, or slower to look closely. */
  readonly speed: 1 | 0.5 | 0.25
}

/** A song it is danced to, from one of its counts on, and how fast. */
export interface PlaySong {
  readonly song: Song
  readonly at: number
  readonly rate: number
}

function rangeOf(combination: Combination, loop: LoopMode, selection: Selection): Range {
  const dance = dancedOf(combination)
  const pass = dance.lead.passes[selection.pass]
  if (loop === 'all' || !pass) return wholeOf(dance)
  if (loop === 'phrase') return { from: pass.at, to: endOf(pass) }
  const from = tick(pass.at + selection.at)
  const to = tick(Math.min(dance.lead.length, from + selection.length))
  // What was selected may have been taken out since.
  return from < to ? { from, to } : wholeOf(dance)
}

/** What the studio plays, to the count or to a song: a count-in, then the chosen side or both in turn, again and again, or once. */
export function studioPerformance(
  combination: Combination,
  { sides, loop, tempo, speed }: PlayChoice,
  selection: Selection,
  song?: PlaySong,
  isLooped = true,
): Performance {
  const dance = dancedOf(combination)
  const range = rangeOf(combination, loop, selection)
  const danced = sides === 'turn' ? bothOf(combination) : [aloneFrom(sides)]
  // What stands before the loop is danced once; a song goes on as it does.
  const again = loop === 'all' && !song ? loopOf(dance, combination) : range
  const begins = isLooped && again.from > range.from
  const rounds = begins ? [...danced, ...danced] : danced
  return performanceOf(
    rounds.map((dancing, i) =>
      stretchOf(dance, dancing, {
        range: i === 0 ? range : again,
        ...(i > 0 && { countIn: undefined }),
      }),
    ),
    {
      ...(song
        ? songFrom(song.song, song.at + range.from / TICKS_PER_COUNT, song.rate)
        : { time: steady(tempo * speed) }),
      speech: SILENT,
    },
    isLooped ? (begins ? 1 + danced.length : 1) : undefined,
  )
}
