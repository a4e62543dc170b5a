import type { Layer } from '../body/layers'
import type { Call, CalledSegment, CallMode, SpeechSeconds } from '../calling/called'
import { callsOf } from '../calling/calls'
import type { Announcement, SongCalls } from '../calling/cues'
import type { Extras } from '../calling/extras'
import type { Combination } from '../combination/combination'
import type { Dancing } from '../combination/dancing'
import { pickupTicks } from '../combination/passes'
import { type Rhythm, strokesIn } from '../rhythm/rhythms'
import type { Company } from '../simulate/company'
import type { Simulation } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
import { COUNT, HALF_COUNT, type Range, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import type { TimeMap } from '../time/timeMap'
import type { PlayedSegment, SegmentMusic } from './played'
import { inOrder, movesHeard, type Sound } from './sounds'

/** Something that is danced in one go: some ticks of one dancing, counted in or right behind what was before. */
export interface Stretch {
  readonly simulation: Simulation
  readonly dancing: Dancing
  /** Ticks of the side's dance. */
  readonly range: Range
  /** What is danced and heard of it. */
  readonly layers: readonly Layer[]
  readonly mode: CallMode
  /** It is counted in by so many counts at least; absent where it is not. */
  readonly countIn?: number | undefined
  /** What is named before it is counted in, and for how many counts. */
  readonly names?: { readonly said: Announcement; readonly counts: number } | undefined
  /** Where it is danced to a song. */
  readonly song?: SongCalls | undefined
  /** Where several dance. */
  readonly company?: Company | undefined
  /** Which time this side is danced, from 1, and how often in all. */
  readonly round: number
  readonly rounds: number
}

/** What goes with a dance. */
export interface Accompaniment {
  /** Holds from the start of each segment. */
  readonly time: TimeMap
  readonly rhythm?: Rhythm | undefined
  /** The song that goes along from the start of each stretch; nothing of it while it is counted in. */
  readonly music?: SegmentMusic | undefined
  /** How long the voice takes. */
  readonly speech: SpeechSeconds
  /** What is said where nothing else is. */
  readonly extras?: Extras | undefined
}

/** A segment of a performance: a count-in, or a stretch. */
export interface Segment extends PlayedSegment {
  readonly length: Tick
  /** On its own ticks; some are only shown. */
  readonly calls: readonly Call[]
  readonly simulation: Simulation
  readonly dancing: Dancing
  readonly layers: readonly Layer[]
  /** The tick of the side's dance it begins with; below 0, or before its stretch, in a count-in. */
  readonly from: Tick
  /** From 1, of its side; 0 while it is counted in. */
  readonly round: number
  readonly rounds: number
  /** The numbers of a count-in, one a count. */
  readonly countIn?: readonly number[]
  /** In a count-in: whether nobody moves until it is over. */
  readonly isStill: boolean
  /** Whether anything is called in it. */
  readonly isCalled: boolean
  readonly song?: SongCalls | undefined
  readonly company?: Company | undefined
}

/** Counts that are counted in where nobody wished for more. */
export const COUNT_IN = 4

/** Over this tempo four counts are over before anybody is ready (teaching 7.4). */
const QUICK_TEMPO = 132

/** Counts that are counted in at a tempo where nobody wished for more. */
export const countInFor = (tempo: Tempo): number => (tempo > QUICK_TEMPO ? 2 : 1) * COUNT_IN

/** How many counts are counted in: as many as are wished for, or as the pickup needs where it is danced from there. */
export const countInCounts = (
  combination: Combination,
  isFromStart: boolean,
  least = COUNT_IN,
): number => Math.max(least, isFromStart ? pickupTicks(combination) / TICKS_PER_COUNT : 0)

/** The numbers of a count-in, the last of them 8: `5 6 7 8`. */
const countInNumbers = (counts: number): readonly number[] =>
  Array.from({ length: counts }, (_, i) => ((8 - counts + i + 16) % 8) + 1)

/** The segments of some stretches, one after the other, with all that sounds and is called. */
export function segmentsOf(
  stretches: readonly Stretch[],
  { time, rhythm, music, speech, extras }: Accompaniment,
): readonly Segment[] {
  const made = stretches.flatMap((stretch, i) => {
    const before = stretches[i - 1]
    const isSwitch = before !== undefined && before.dancing.side !== stretch.dancing.side
    const round = {
      segment: { ...roundOf(stretch, time, rhythm), ...(music && { music }) },
      called: calledRound(stretch, isSwitch),
    }
    if (stretch.countIn === undefined) return [round]
    const segment = countInOf(stretch, stretch.countIn, time)
    const numbers = stretch.mode === 'none' ? [] : (segment.countIn ?? [])
    const { length: counted } = segment
    const { combination } = stretch.simulation
    const called: CalledSegment = {
      kind: 'count-in',
      numbers,
      length: counted,
      ...(combination.pickup &&
        stretch.range.from === 0 && { pickup: counted - pickupTicks(combination) }),
    }
    const led = [{ segment, called }, round]
    const { names } = stretch
    if (!names || stretch.mode === 'none') return led
    const length = tick(names.counts * TICKS_PER_COUNT)
    // Nobody moves while the first move is named, not even into a pickup.
    const named: Uncalled = {
      ...segment,
      length,
      sounds: [],
      from: tick(segment.from - length),
      countIn: [],
      isStill: false,
    }
    const naming: CalledSegment = { kind: 'count-in', numbers: [], length, names: names.said }
    return [{ segment: named, called: naming }, ...led]
  })
  const calls = callsOf(
    made.map(({ called }) => called),
    time,
    speech,
    extras,
  )
  let end = 0
  return made.map(({ segment }): Segment => {
    const start = end
    end += segment.length
    const own = calls
      .filter(({ at }) => at >= start && at < end)
      .map((call) => ({ ...call, at: call.at - start, of: call.of - start }))
    const said = own.flatMap(({ at, say }): readonly Sound[] =>
      say ? [{ at: tick(at), kind: 'say', say }] : [],
    )
    return { ...segment, sounds: inOrder([...segment.sounds, ...said]), calls: own }
  })
}

type Uncalled = Omit<Segment, 'calls'>

/** A lead-in that says the last counts of an 8, in which a pickup is danced. */
function countInOf(
  { simulation, dancing, range, layers, rounds, mode }: Stretch,
  least: number,
  time: TimeMap,
): Uncalled {
  const { combination } = simulation
  const isFromStart = range.from === 0
  const counts = countInCounts(combination, isFromStart, least)
  const length = tick(counts * TICKS_PER_COUNT)
  const numbers = countInNumbers(counts)
  const clicks = numbers.map((_, i): Sound => ({ at: tick(i * TICKS_PER_COUNT), kind: 'count' }))
  const pickup =
    isFromStart && combination.pickup
      ? movesHeard(simulation, layers)
          .filter(({ at }) => at < 0)
          .map((sound) => ({ ...sound, at: tick(sound.at + length) }))
      : []
  return {
    length,
    time,
    sounds: inOrder([...clicks, ...pickup]),
    simulation,
    dancing,
    layers,
    from: tick(range.from - length),
    round: 0,
    rounds,
    countIn: numbers,
    isStill: !isFromStart,
    isCalled: mode !== 'none',
  }
}

/** Some ticks of one side, with a click a count, a quieter one on `&`, the layers' own sounds and a rhythm. */
function roundOf(
  { simulation, dancing, range, layers, round, rounds, mode, song, company }: Stretch,
  time: TimeMap,
  rhythm: Rhythm | undefined,
): Uncalled {
  const clicks = simulation.passes.flatMap((pass) =>
    Array.from({ length: pass.length / HALF_COUNT }, (_, i): Sound => {
      const at = tick(pass.at + i * HALF_COUNT)
      return { at, kind: i === 0 ? 'phrase' : at % COUNT === 0 ? 'count' : 'and' }
    }),
  )
  const length = tick(range.to - range.from)
  const counted = song ? clicks.filter(({ at }) => song.isCounted(at)) : clicks
  const danced = [...counted, ...movesHeard(simulation, layers)]
    .filter(({ at }) => at >= range.from && at < range.to)
    .map((sound) => ({ ...sound, at: tick(sound.at - range.from) }))
  const strokes = rhythm ? strokesIn(rhythm, range.from, length) : []
  return {
    length,
    time,
    sounds: inOrder([...danced, ...strokes]),
    simulation,
    dancing,
    layers,
    from: range.from,
    round,
    rounds,
    isStill: false,
    isCalled: mode !== 'none',
    song,
    company,
  }
}

const calledRound = (
  { simulation, range, layers, mode, song, company }: Stretch,
  isSwitch: boolean,
): CalledSegment => ({ kind: 'round', simulation, range, layers, mode, isSwitch, song, company })
