import { type CallMode, callModes, type SpeechSeconds } from '../calling/calls'
import { aloneFrom } from '../combination/dancing'
import type { Pass } from '../combination/passes'
import { type Performance, type Place, performanceOf } from '../performance/performance'
import { type Accompaniment, COUNT_IN } from '../performance/segments'
import { stretchOf } from '../performance/stretches'
import type { Drill } from '../plan/drill'
import { type DrillRound, type Materials, roundOf } from '../plan/material'
import { rhythmOf, usualRhythm } from '../rhythm/rhythms'
import { type CountWords, sayPass } from '../teaching/say'
import { TICKS_PER_COUNT, tick } from '../time/time'
import { steady } from '../time/timeMap'
import type { SoundChoice } from './soundChoice'

/** A drill as it is danced now, with all that sounds. */
export interface DrillDance {
  readonly drill: Drill
  /** What it is called and danced to. */
  readonly choice: SoundChoice
  readonly round: DrillRound
  readonly performance: Performance
}

/** How a drill is called: as the rounds go (model 11), always in one way, or not at all. */
type CallStyle = 'rounds' | CallMode

/** What a drill is danced to. */
export interface DrillSound extends Omit<Accompaniment, 'time'> {
  readonly call: CallStyle
  /** Counts that are counted in at least; 4 where it is not given. */
  readonly countIn?: number
}

/** A drill as it is performed: the sides in their order, each counted in, or in turn after one count-in. */
export function drillPerformance(
  {
    sides,
    repeats,
    tempo,
    inTurn,
    layers,
  }: Pick<Drill, 'sides' | 'inTurn' | 'repeats' | 'tempo' | 'layers'>,
  round: DrillRound,
  { call, countIn = COUNT_IN, ...sound }: DrillSound,
): Performance {
  const modes = callModes(repeats)
  const rounds = Array.from({ length: repeats }, (_, i) => i)
  const order = inTurn
    ? rounds.flatMap((i) => sides.map((side) => ({ side, i })))
    : sides.flatMap((side) => rounds.map((i) => ({ side, i })))
  const stretches = order.map(({ side, i }, place) => {
    const before = order[place - 1]?.side
    const isCountedIn = before === undefined || (side !== before && !inTurn)
    return stretchOf(round.material, aloneFrom(side), {
      range: { from: tick(round.from), to: tick(round.to) },
      layers,
      mode: call === 'rounds' ? (modes[i] ?? 'cues') : call,
      countIn: isCountedIn ? countIn : undefined,
      round: i + 1,
      rounds: repeats,
    })
  })
  return performanceOf(stretches, { ...sound, time: steady(tempo) })
}

/** The sound of a drill, by what the instructor chose and how long her voice takes. */
export function soundFor(
  { rhythm, call, countIn }: SoundChoice,
  { material, passes }: DrillRound,
  speech: SpeechSeconds,
): DrillSound {
  const usual = () => usualRhythm(material.combination.families, passes[0]?.phrase.counts)
  return { rhythm: rhythm === 'own' ? usual() : rhythmOf(rhythm), call, countIn, speech }
}

/** Undefined where there is no drill, or nothing of it is left in its combination. */
export function drillDanceOf(
  drill: Drill | undefined,
  materials: Materials,
  choice: SoundChoice,
  speech: SpeechSeconds,
): DrillDance | undefined {
  const round = drill && roundOf(drill, materials)
  return (
    drill &&
    round && {
      drill,
      choice,
      round,
      performance: drillPerformance(drill, round, soundFor(choice, round, speech)),
    }
  )
}

/** Asked with every frame, so what is said of a pass is made once. */
const said = new WeakMap<Pass, Map<string, readonly CountWords[]>>()

/**
 * What starts on the count that sounds.
 * @returns nothing in a count-in
 */
export function wordsAt(
  { performance, drill }: DrillDance,
  { index, at }: Place,
): CountWords | undefined {
  const segment = performance.segments[index]
  if (!segment || segment.round === 0) return undefined
  const { simulation } = segment
  const tick = segment.from + at
  const pass = simulation.passes.findLast((one) => one.at <= tick)
  if (!pass) return undefined
  const known = said.get(pass) ?? new Map<string, readonly CountWords[]>()
  said.set(pass, known)
  const key = drill.layers.join()
  const words =
    known.get(key) ?? sayPass(simulation, pass, new Set(drill.layers), simulation.vocabulary)
  known.set(key, words)
  return words[Math.floor((tick - pass.at) / TICKS_PER_COUNT)]
}
