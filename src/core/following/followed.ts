import type { ShownDrill } from '../class/shownDrill'
import { houseOf } from '../house/house'
import { performanceFrom } from '../performance/performance'
import type { Segment } from '../performance/segments'
import { danceOf } from '../piece/dance'
import { vocabularyOfUsed } from '../practice/movesUsed'
import { type Danced, danced } from '../simulate/danced'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { beaten, steady, type TimeMap } from '../time/timeMap'
import type { DrillNews, FloorNews, PartNews, PieceNews, RestNews, RunNews } from './news.schema'

/** All that holds at a moment of what the floor told: what is needed of it by who comes late. */
export interface Followed {
  readonly pieces: readonly PieceNews[]
  readonly drills: readonly DrillNews[]
  /** Where it is, or that nothing sounds. */
  readonly going: RunNews | RestNews | undefined
}

export const NOTHING_TOLD: Followed = { pieces: [], drills: [], going: undefined }

/** So many pieces and drills are kept: what sounds, what comes, and one more where they overtake each other. */
const KEPT = 3

/** The newest of each content, the newest first. */
function kept<T extends { readonly n: number }>(
  known: readonly T[],
  news: T,
  contentOf: (one: T) => string,
): readonly T[] {
  const same = known.find((one) => contentOf(one) === contentOf(news))
  if (same && same.n >= news.n) return known
  return [...known.filter((one) => one !== same), news].sort((a, b) => b.n - a.n).slice(0, KEPT)
}

/** What holds after one more news; what is older than what is known changes nothing, whenever it comes. */
export function afterNews(followed: Followed, news: FloorNews): Followed {
  switch (news.t) {
    case 'piece':
      return { ...followed, pieces: kept(followed.pieces, news, ({ mark }) => mark) }
    case 'drill':
      return { ...followed, drills: kept(followed.drills, news, ({ drill }) => drill) }
    case 'run':
    case 'rest':
      return followed.going && followed.going.n >= news.n ? followed : { ...followed, going: news }
  }
}

/** What is told to who comes late. */
export const newsOf = ({ pieces, drills, going }: Followed): readonly FloorNews[] => [
  ...pieces,
  ...drills,
  ...(going ? [going] : []),
]

/** What sounds, or is to be danced next; absent where all of it was not told yet. */
export function drillTold({ pieces, drills, going }: Followed):
  | {
      readonly piece: PieceNews
      readonly drill: DrillNews
    }
  | undefined {
  const drill = drills.find((one) => one.drill === going?.drill)
  const piece = pieces.find(({ mark }) => mark === drill?.mark)
  return drill && piece && { piece, drill }
}

const timeOf = (time: PartNews['time']): TimeMap =>
  typeof time === 'number'
    ? steady(time)
    : beaten(time.map(([at, seconds]) => ({ tick: at, seconds })))

const danceTold = ({ combination, moves, house, knots }: PieceNews): Danced => {
  const vocabulary = vocabularyOfUsed(moves)
  return knots
    ? danced(combination, vocabulary, houseOf(house), timeOf(knots))
    : danceOf(combination, vocabulary, houseOf(house))
}

/** A drill made again of what was told of it, as the floor dances it. */
export function followedDrill(piece: PieceNews, drill: DrillNews): ShownDrill & { dance: Danced } {
  const dance = danceTold(piece)
  const segments = drill.parts.map(
    ({ from, length, dancing, time, uncounted, calls, isTogether, countIn, ...part }): Segment => {
      const unheard = uncounted && new Set(uncounted)
      return {
        ...part,
        from: tick(from),
        length: tick(length),
        dancing,
        time: timeOf(time),
        sounds: [],
        simulation: dance.from(dancing),
        layers: drill.layers,
        ...(countIn && { countIn }),
        ...(isTogether && { company: dance.company?.(dancing) }),
        ...(unheard && {
          song: {
            cues: [],
            isCounted: (at: number) => !unheard.has(Math.floor(at / TICKS_PER_COUNT)),
          },
        }),
        calls: calls.map(({ at, of, what, text, say }) => ({
          at,
          of,
          what: what as Segment['calls'][number]['what'],
          text,
          length: 0,
          ...(say && { say: { text, isFast: false, onBeat: say === 'on' } }),
        })),
      }
    },
  )
  const places = drill.places
  return {
    dance,
    combination: piece.combination,
    from: dance.from,
    performance: performanceFrom(segments),
    layers: drill.layers,
    speed: drill.speed,
    stand: drill.stand,
    lead: drill.lead,
    times: drill.times,
    start: drill.from,
    isShown: drill.isShown,
    placeAt: places && ((at) => places.findLast(([from]) => from <= at)?.[1] ?? ''),
  }
}

/**
 * The tick of a performance that sounds at a moment.
 * @param now on the clock the news are told by, in milliseconds
 * @returns nothing before its beginning and after its end
 */
export function followedTick(
  { performance: { time, length } }: Pick<ShownDrill, 'performance'>,
  { tick: told, at }: RunNews,
  now: number,
): number | undefined {
  const tick = time.tickAt(time.secondsAt(told) + (now - at) / 1000)
  return tick < length ? Math.max(0, tick) : undefined
}
