import { type DrillDance, shownDrill } from '../class/drillDance'
import { drillOf, type UnderWay } from '../class/underWay'
import { walkCount } from '../class/walk'
import type { Combination } from '../combination/combination'
import { danceRules, type HouseRules } from '../house/house'
import type { Segment } from '../performance/segments'
import { type Drill, isCounted, MOST_LETTERS } from '../plan/drill'
import { type DrillRound, type Material, type Materials, roundOf } from '../plan/material'
import { drillTitle } from '../plan/totals'
import { movesUsedBy } from '../practice/movesUsed'
import { markOf } from '../practice/pageData'
import { stableText } from '../record/stable'
import { TICKS_PER_COUNT } from '../time/time'
import type { TimeMap } from '../time/timeMap'
import type { DrillNews, PartNews, PieceNews, RestNews, WalkNews } from './news.schema'

/** News before it is told: when it is, it gets its number. */
type Untold<T> = Omit<T, 'n'>

const clipped = (text: string): string => text.slice(0, MOST_LETTERS)

/** The mark of what a news says. */
const contentMark = (news: object): string => markOf(stableText(news))

/** A time by the moments of its counts. */
const knotsOf = (time: TimeMap, length: number): readonly [number, number][] =>
  Array.from({ length: Math.ceil(length / TICKS_PER_COUNT) + 1 }, (_, i) => [
    i * TICKS_PER_COUNT,
    Number(time.secondsAt(i * TICKS_PER_COUNT).toFixed(5)),
  ])

/** Only what is danced of it: nothing the instructor holds it to herself, nothing of where it is kept. */
function danceOnly({
  rules: _rules,
  leave: _leave,
  comments: _comments,
  unread: _unread,
  tags: _tags,
  by: _by,
  song: _song,
  variantOf: _variantOf,
  moves: _moves,
  ...danced
}: Combination): Combination {
  return { ...danced, id: 'danced' }
}

/** Told of a material again and again, so it is made once. */
const pieces = new WeakMap<Material, Untold<PieceNews>>()

/** What is danced, as those who follow need it. */
export function pieceNews(
  { round }: DrillDance,
  { materials, rules }: { readonly materials: Materials; readonly rules: HouseRules },
): Untold<PieceNews> {
  const { material, song } = round
  const known = pieces.get(material)
  const house = danceRules(rules)
  if (known?.house === house) return known
  const { lead, combination } = material
  const piece = {
    t: 'piece' as const,
    combination: danceOnly(combination),
    moves: movesUsedBy(combination, materials.vocabulary),
    house,
    ...(song && { knots: knotsOf(lead.time, lead.length) }),
  }
  const made = { ...piece, mark: contentMark(piece) }
  pieces.set(material, made)
  return made
}

function partNews(
  { segment, hasSong }: { readonly segment: Segment; readonly hasSong: boolean },
  tempo: number,
): PartNews {
  const { from, length, dancing, round, rounds, countIn, isStill, isCalled, company, song } =
    segment
  const counts = Array.from({ length: Math.ceil(length / TICKS_PER_COUNT) }, (_, i) =>
    Math.floor((from + i * TICKS_PER_COUNT) / TICKS_PER_COUNT),
  )
  return {
    from,
    length,
    dancing,
    round,
    rounds,
    ...(countIn && { countIn }),
    isStill,
    isCalled,
    isTogether: company !== undefined,
    calls: segment.calls
      // The numbers are on the counts themselves.
      .filter(({ what }) => what !== 'number' && what !== 'and')
      .map(({ at, of, what, text, say }) => ({
        at,
        of,
        what,
        text: clipped(text),
        ...(say && { say: say.onBeat ? ('on' as const) : ('ahead' as const) }),
      })),
    time: hasSong ? knotsOf(segment.time, length) : tempo,
    ...(song && {
      uncounted: counts.filter((count) => !song.isCounted(count * TICKS_PER_COUNT)),
    }),
  }
}

/** How a drill is danced, as those who follow need it. */
export function drillNews(
  danced: DrillDance,
  { mark, title }: { readonly mark: string; readonly title: string },
): Untold<DrillNews> {
  const { drill, performance, round } = danced
  const { lead, times, start, isShown, placeAt, speed, layers, stand } = shownDrill(danced)
  const told = {
    t: 'drill' as const,
    mark,
    title: clipped(title),
    speed,
    stand,
    layers,
    ...(lead && { lead }),
    times,
    from: start,
    isShown,
    parts: performance.segments.map((segment) =>
      partNews({ segment, hasSong: round.song !== undefined }, drill.tempo),
    ),
    ...(placeAt && {
      places: Array.from(
        { length: (round.to - round.from) / TICKS_PER_COUNT },
        (_, i): [number, string] => {
          const at = round.from + i * TICKS_PER_COUNT
          return [at, clipped(placeAt(at))]
        },
      ),
    }),
  }
  return { ...told, drill: contentMark(told) }
}

/** Where a walk is, as it is shown. */
export function walkTold(
  drill: Drill,
  round: DrillRound,
  { walked, isUnderWay }: { readonly walked: number; readonly isUnderWay: boolean },
): WalkNews {
  const { at, phrase, now, next } = walkCount(drill, round, walked)
  const common = { side: drill.sides[0] ?? 'R', phrase: clipped(phrase), isFirst: walked === 0 }
  if (!isUnderWay || !now) return { ...common, tick: round.from, lines: [] }
  const feet = now.feet.length > 0 ? [{ layer: 'feet' as const, text: now.feet.join('. ') }] : []
  return {
    ...common,
    // Where the count has led.
    tick: at + TICKS_PER_COUNT - 1,
    count: now.count,
    lines: [...feet, ...now.layers].map(({ layer, text }) => ({ layer, text: clipped(text) })),
    weight: clipped(now.weight),
    ...(next !== undefined && { next: clipped(next) }),
  }
}

/** Milliseconds a step without a count lasts, as planned. */
export const saidMs = ({ seconds = 0, talk }: Drill): number => 1000 * (seconds + talk)

/** What is to be known for what is told while nothing sounds. */
interface Resting {
  readonly materials: Materials
  /** The drill that was told of, where one is danced or walked. */
  readonly drill: string | undefined
  /** When a step without a count began, in milliseconds; absent before it has. */
  readonly begun: number | undefined
}

/** What is told while nothing sounds. */
export function restNews(
  session: UnderWay,
  { materials, drill: key, begun }: Resting,
): Untold<RestNews> {
  const { phase, walked } = session
  const drill = drillOf(session)
  if (!drill || phase === 'over')
    return { t: 'rest', phase: 'over', title: '', text: 'Well danced.' }
  const common = {
    t: 'rest' as const,
    title: clipped(drillTitle(drill, materials)),
    ...(key !== undefined && { drill: key }),
  }
  if (phase === 'asking') return { ...common, phase, text: 'Breathe.' }
  if (isCounted(drill))
    return { ...common, phase: 'ready', text: phase === 'paused' ? 'Paused.' : 'Ready.' }
  const isUnderWay = phase === 'dancing'
  const round = drill.kind === 'walk' ? roundOf(drill, materials) : undefined
  if (round) {
    const walk = walkTold(drill, round, { walked, isUnderWay })
    return { ...common, phase: 'walk', text: isUnderWay ? '' : 'A walk: no clock.', walk }
  }
  return {
    ...common,
    phase: 'talk',
    text: '',
    ...(isUnderWay && begun !== undefined && { until: begun + saidMs(drill) }),
  }
}
