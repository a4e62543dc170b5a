import type { Layer } from '../body/layers'
import { LAYERS } from '../body/layers'
import { type Side, sideWord } from '../body/side'
import {
  type Call,
  type CalledPart,
  type CallMode,
  callModes,
  callsOf,
  type SpeechSeconds,
} from '../calling/calls'
import { type Pass, passAt } from '../combination/passes'
import type { Drill } from '../plan/drill'
import type { DrillRound } from '../plan/material'
import { type Rhythm, strokesIn } from '../rhythm/rhythms'
import {
  countIn,
  dancePart,
  isOfLayers,
  type Part,
  type Range,
  type Sound,
} from '../teaching/program'
import { TICKS_PER_COUNT, tick } from '../time/time'

/** How a drill is called: as the rounds go (model 11), always in one way, or not at all. */
type CallStyle = 'rounds' | CallMode

/** What a drill is danced to. */
export interface DrillSound {
  readonly rhythm: Rhythm | undefined
  readonly call: CallStyle
  readonly speech: SpeechSeconds
  /** Counts that are counted in at least; 4 where it is not given. */
  readonly countIn?: number
}

/** One stretch of a drill: a count-in, or one round on one side. */
export interface DrillPart extends Part {
  readonly side: Side
  /** From 1, of this side; 0 while it is counted in. */
  readonly round: number
  readonly rounds: number
  /** All passes of its side. */
  readonly passes: readonly Pass[]
  /** What is called in it, on its own ticks; some of it is only shown. */
  readonly calls: readonly Call[]
}

/** A drill as it is played: the sides in their order, each counted in, or in turn after one count-in. */
export function drillParts(
  drill: Pick<Drill, 'sides' | 'inTurn' | 'repeats' | 'tempo' | 'layers' | 'moves'>,
  round: DrillRound,
  sound: DrillSound,
): readonly DrillPart[] {
  const { sides, repeats, tempo, inTurn } = drill
  const range: Range = { from: tick(round.from), to: tick(round.to) }
  const modes = callModes(repeats)
  const modeOf = (i: number): CallMode =>
    sound.call === 'rounds' ? (modes[i] ?? 'cues') : sound.call
  const order = inTurn
    ? Array.from({ length: repeats }, (_, i) => sides.map((side) => ({ side, i }))).flat()
    : sides.flatMap((side) => Array.from({ length: repeats }, (_, i) => ({ side, i })))
  const made: { part: Part; called: CalledPart; side: Side; round: number }[] = []
  let before: Side | undefined
  for (const { side, i } of order) {
    const simulation = round.material.from(side)
    if (before === undefined || (side !== before && !inTurn)) {
      const into = range.from === 0 ? { simulation, side } : undefined
      const part = withoutOthers(countIn(tempo, into, sound.countIn), drill.layers)
      const called: CalledPart = {
        kind: 'count-in',
        numbers: sound.call === 'none' ? [] : (part.countIn ?? []),
        length: part.length,
      }
      made.push({ part, called, side, round: 0 })
    }
    const part = withoutOthers(dancePart(simulation, side, range, tempo), drill.layers)
    const called: CalledPart = {
      kind: 'round',
      simulation,
      range,
      layers: drill.layers,
      mode: modeOf(i),
      isSwitch: before !== undefined && side !== before,
    }
    made.push({ part: withRhythm(part, sound.rhythm), called, side, round: i + 1 })
    before = side
  }
  const calls = callsOf(
    made.map(({ called }) => called),
    tempo,
    sound.speech,
  )
  let start = 0
  return made.map(({ part, side, round: number }): DrillPart => {
    const from = start
    start += part.length
    const own = calls
      .filter(({ at }) => at >= from && at < start)
      .map((call) => ({ ...call, at: call.at - from, of: call.of - from }))
    const said = own.flatMap(({ at, say }): readonly Sound[] =>
      say ? [{ at: tick(at), kind: 'say', say }] : [],
    )
    const sounds = [...part.sounds, ...said].sort((a, b) => a.at - b.at)
    return {
      ...part,
      sounds,
      side,
      round: number,
      rounds: repeats,
      passes: round.material.from(side).passes,
      calls: own,
    }
  })
}

/** Only the layers that are drilled are heard. */
const withoutOthers = (part: Part, layers: readonly Layer[]): Part => ({
  ...part,
  sounds: part.sounds.filter(({ kind }) => !isOfLayers(kind, LAYERS) || isOfLayers(kind, layers)),
})

function withRhythm(part: Part, rhythm: Rhythm | undefined): Part {
  if (!rhythm) return part
  const strokes = strokesIn(rhythm, part.dance?.from ?? 0, part.length)
  return { ...part, sounds: [...part.sounds, ...strokes].sort((a, b) => a.at - b.at) }
}

/** What the floor shows of a moment. */
export interface ClassMoment {
  /** The number that is danced or counted in. */
  readonly count: string
  readonly isCountIn: boolean
  /** DrillDance from the other side than the round as a whole. */
  readonly isMirrored: boolean
  readonly phrase: string
  /** What was last called here. */
  readonly said: string
  /** What comes next, and in how many counts. */
  readonly next: { readonly text: string; readonly counts: number } | undefined
}

/** A moment of one of the parts of a drill, for the floor. @param at ticks into that part. */
export function momentOf(parts: readonly DrillPart[], index: number, at: number): ClassMoment {
  const part = parts[index]
  if (!part) throw new Error(`no part ${index}`)
  const following = parts[index + 1]
  const number = part.countIn?.[Math.floor(at / TICKS_PER_COUNT)]
  const isCountIn = part.round === 0
  const from = part.dance?.from ?? 0
  const pass = isCountIn ? undefined : passAt(part.passes, from + at)
  const count = pass ? Math.floor((from + at - pass.at) / TICKS_PER_COUNT) + 1 : number
  const cues = callsAround(parts, index).filter(({ what }) => what !== 'number' && what !== 'and')
  const next = cues.filter(({ of }) => of > at).sort((a, b) => a.of - b.of)[0]
  const turn =
    following && following.side !== part.side
      ? { text: `${sideWord[following.side]} side`, of: part.length }
      : undefined
  const soonest = turn && (!next || turn.of <= next.of) ? turn : next
  return {
    count: count === undefined ? '' : String(count),
    isCountIn,
    isMirrored: pass?.mirrored ?? false,
    phrase: pass ? [pass.phrase.name, pass.phrase.title].filter(Boolean).join(' · ') : '',
    said: saidAt(cues, at),
    next: soonest && {
      text: soonest.text,
      counts: Math.max(1, Math.ceil((soonest.of - at) / TICKS_PER_COUNT)),
    },
  }
}

/** The calls of a part and of its neighbours, all on its own ticks: a word may hold over a border. */
function callsAround(parts: readonly DrillPart[], index: number): readonly Call[] {
  const shifted = (other: DrillPart | undefined, by: number): readonly Call[] =>
    (other?.calls ?? []).map((call) => ({ ...call, at: call.at + by, of: call.of + by }))
  const before = parts[index - 1]
  const part = parts[index]
  return [
    ...shifted(before, 0 - (before?.length ?? 0)),
    ...(part?.calls ?? []),
    ...shifted(parts[index + 1], part?.length ?? 0),
  ]
}

/** The cue that was begun last and still holds; of two at once the one that is spoken. */
function saidAt(cues: readonly Call[], at: number): string {
  const held = cues.filter((call) => call.at <= at && at < call.of)
  const last = Math.max(...held.map((call) => call.at))
  const begun = held.filter((call) => call.at === last)
  return (begun.find(({ say }) => say) ?? begun[0])?.text ?? ''
}
