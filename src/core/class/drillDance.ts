import type { SpeechSeconds } from '../calling/calls'
import type { Pass } from '../combination/passes'
import type { Drill } from '../plan/drill'
import { type DrillRound, type Materials, roundOf } from '../plan/material'
import { rhythmOf, usualRhythm } from '../rhythm/rhythms'
import { type CountWords, sayPass } from '../teaching/say'
import { TICKS_PER_COUNT } from '../time/time'
import { type DrillPart, type DrillSound, drillParts } from './drillProgram'
import type { SoundChoice } from './soundChoice'

/** A drill as it is danced now, with all that sounds. */
export interface DrillDance {
  readonly drill: Drill
  /** What it is called and danced to. */
  readonly choice: SoundChoice
  readonly round: DrillRound
  readonly parts: readonly DrillPart[]
}

/** The sound of a drill, by what the instructor chose and how long her voice takes. */
export function soundFor(
  { rhythm, call, countIn }: SoundChoice,
  { material, passes }: DrillRound,
  speech: SpeechSeconds,
): DrillSound {
  const usual = () =>
    usualRhythm(material.combination.families, passes[0]?.phrase.counts ?? USUAL_COUNTS)
  return { rhythm: rhythm === 'own' ? usual() : rhythmOf(rhythm), call, countIn, speech }
}

const USUAL_COUNTS = 8

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
      parts: drillParts(drill, round, soundFor(choice, round, speech)),
    }
  )
}

/** Asked with every frame, so what is said of a pass is made once. */
const said = new WeakMap<Pass, Map<string, readonly CountWords[]>>()

/**
 * What starts on the count that sounds.
 * @param at ticks into the part; undefined in a count-in
 */
export function wordsAt(
  { parts, round, drill }: DrillDance,
  index: number,
  at: number,
): CountWords | undefined {
  const part = parts[index]
  if (!part || part.round === 0) return undefined
  const simulation = round.material.from(part.side)
  const tick = (part.dance?.from ?? 0) + at
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
