import { sideWord } from '../body/side'
import type { Call } from '../calling/called'
import type { Dancing } from '../combination/dancing'
import { type Pass, passAt, pickupTicks } from '../combination/passes'
import type { Dancers } from '../pose/dancers'
import { newPose, type Pose } from '../pose/joints'
import { TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { inTurn, type TimeMap } from '../time/timeMap'
import { type Caption, captionsOf, countText } from './captions'
import type { Played } from './played'
import { posedAt, type Seam, seamBefore } from './seam'
import { type Accompaniment, type Segment, type Stretch, segmentsOf } from './segments'
import type { Sound } from './sounds'

/** A place in a performance: a segment, and ticks into it. */
export interface Place {
  readonly index: number
  /** Need not be whole. */
  readonly at: number
}

/** What is danced at a moment. */
export interface DanceMoment {
  readonly dancing: Dancing
  /** Of that dance; before its first one while it is counted in. */
  readonly tick: number
  /** Set where it already goes over into what follows. */
  readonly seam: Seam | undefined
}

/** What is shown of a moment. */
export interface Moment extends DanceMoment, Place {
  readonly segment: Segment
  /** The number that is danced or counted in. */
  readonly count: string
  readonly isCountIn: boolean
  /** What is danced; absent in a count-in before its pickup. */
  readonly pass: Pass | undefined
  /** Danced from the other side than the round as a whole. */
  readonly isMirrored: boolean
  /** The name and title of its phrase; empty in a count-in. */
  readonly phrase: string
  /** What was last called here. */
  readonly said: string
  /** What comes next, and in how many counts. */
  readonly next: { readonly text: string; readonly counts: number } | undefined
}

/**
 * Anything that is danced, in its timed segments: what the player plays, the screens show, the files
 * hold. Ticks are of the whole, from the first count-in on.
 */
export interface Performance extends Played {
  readonly segments: readonly Segment[]
  /** The segments from here on are danced again and again. */
  readonly loopFrom: number | undefined
  /** All segments once. */
  readonly length: Tick
  readonly time: TimeMap
  readonly sounds: readonly Sound[]
  readonly calls: readonly Call[]
  readonly captions: readonly Caption[]
  readonly placeAt: (tick: number) => Place
  readonly tickOf: (place: Place) => number
  readonly danceAt: (tick: number) => DanceMoment
  readonly momentAt: (tick: number) => Moment
  /** @param into a pose to write into; a new one is made where none is given. */
  readonly poseAt: (tick: number, dancers: Dancers, into?: Pose) => Pose
}

/** Makes a performance of some stretches. */
export const performanceOf = (
  stretches: readonly Stretch[],
  accompaniment: Accompaniment,
  loopFrom?: number,
): Performance => performanceFrom(segmentsOf(stretches, accompaniment), loopFrom)

/** Makes a performance of segments that are there. */
export function performanceFrom(segments: readonly Segment[], loopFrom?: number): Performance {
  const starts: number[] = []
  let length = 0
  for (const segment of segments) {
    starts.push(length)
    length += segment.length
  }
  const startOf = (index: number) => starts[index] ?? length
  const moved = <T extends { readonly at: number }>(list: readonly T[], by: number) =>
    list.map((one) => ({ ...one, at: tick(one.at + by) }))
  const placeAt = (at: number): Place => {
    const index = Math.max(
      0,
      starts.findLastIndex((start) => start <= at),
    )
    return { index, at: at - startOf(index) }
  }
  const danceAt = (at: number): DanceMoment => {
    const place = placeAt(at)
    const segment = segmentIn(segments, place.index)
    const next =
      segments[place.index + 1] ?? (loopFrom === undefined ? undefined : segments[loopFrom])
    return {
      dancing: segment.dancing,
      tick: danceTick(segment, place.at),
      seam: next && seamBefore(segment.length - place.at, next.dancing, danceTick(next, 0)),
    }
  }
  let captions: readonly Caption[] | undefined
  let scratch: Pose | undefined
  return {
    segments,
    loopFrom,
    length: tick(length),
    time: inTurn(segments),
    get sounds() {
      return segments.flatMap(({ sounds }, i) => moved(sounds, startOf(i)))
    },
    get calls() {
      return segments.flatMap(({ calls }, i) =>
        moved(calls, startOf(i)).map((call) => ({ ...call, of: call.of + startOf(i) })),
      )
    },
    get captions() {
      captions ??= captionsOf(segments)
      return captions
    },
    placeAt,
    tickOf: ({ index, at }) => startOf(index) + at,
    danceAt,
    momentAt: (at) => momentOf(segments, placeAt(at), danceAt(at)),
    poseAt(at, dancers, into = newPose()) {
      const { dancing, tick: danced, seam } = danceAt(at)
      scratch ??= newPose()
      return posedAt(
        dancers(dancing),
        danced,
        seam,
        dancers(seam?.dancing ?? dancing),
        into,
        scratch,
      )
    },
  }
}

function segmentIn(segments: readonly Segment[], index: number): Segment {
  const segment = segments[index]
  if (!segment) throw new Error(`no segment ${index}`)
  return segment
}

/** Who only waits stands where the dance will begin. */
const danceTick = ({ isStill, from, length }: Segment, at: number): number =>
  isStill ? from + length : from + at

function momentOf(segments: readonly Segment[], { index, at }: Place, dance: DanceMoment): Moment {
  const segment = segmentIn(segments, index)
  const isCountIn = segment.countIn !== undefined
  // In a count-in nothing is danced before the pickup.
  const isDanced = isCountIn
    ? !segment.isStill && dance.tick >= 0 - pickupTicks(segment.simulation.combination)
    : true
  const pass = isDanced ? passAt(segment.simulation.passes, dance.tick) : undefined
  const cues = callsAround(segments, index).filter(
    ({ what }) => what !== 'number' && what !== 'and',
  )
  return {
    ...dance,
    index,
    at,
    segment,
    count: countText(segment, at),
    isCountIn,
    pass,
    isMirrored: (!isCountIn && pass?.mirrored) || false,
    phrase:
      pass && !isCountIn ? [pass.phrase.name, pass.phrase.title].filter(Boolean).join(' · ') : '',
    said: saidAt(cues, at),
    next: nextAfter(cues, segment, segments[index + 1], at),
  }
}

function nextAfter(
  cues: readonly Call[],
  segment: Segment,
  following: Segment | undefined,
  at: number,
): Moment['next'] {
  // What is named or praised is nothing to come.
  const next = cues
    .filter(({ of, what }) => of > at && what !== 'names' && what !== 'extra')
    .sort((a, b) => a.of - b.of)[0]
  const turn =
    following && following.dancing.side !== segment.dancing.side
      ? { text: `${sideWord[following.dancing.side]} side`, of: segment.length }
      : undefined
  const soonest = turn && (!next || turn.of <= next.of) ? turn : next
  return (
    soonest && {
      text: soonest.text,
      counts: Math.max(1, Math.ceil((soonest.of - at) / TICKS_PER_COUNT)),
    }
  )
}

/** The calls of a segment and of its neighbours, all on its own ticks: a word may hold over a border. */
function callsAround(segments: readonly Segment[], index: number): readonly Call[] {
  const shifted = (other: Segment | undefined, by: number): readonly Call[] =>
    (other?.calls ?? []).map((call) => ({ ...call, at: call.at + by, of: call.of + by }))
  const before = segments[index - 1]
  const segment = segments[index]
  return [
    ...shifted(before, 0 - (before?.length ?? 0)),
    ...(segment?.calls ?? []),
    ...shifted(segments[index + 1], segment?.length ?? 0),
  ]
}

/** The cue that was begun last and still holds; of two at once the one that is spoken. */
function saidAt(cues: readonly Call[], at: number): string {
  // A word on its own count holds for that count.
  const until = ({ of, say }: Call) => (say?.onBeat ? of + TICKS_PER_COUNT : of)
  const held = cues.filter((call) => call.at <= at && at < until(call))
  const last = Math.max(...held.map((call) => call.at))
  const begun = held.filter((call) => call.at === last)
  return (begun.find(({ say }) => say) ?? begun[0])?.text ?? ''
}
