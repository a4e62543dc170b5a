import { factsOf } from '../body/feet'
import type { Layer } from '../body/layers'
import type { Side } from '../body/side'
import type { StrokeKind } from '../rhythm/rhythms'
import type { Simulation } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
import { COUNT, HALF_COUNT, TICKS_PER_COUNT, type Tick, tick } from '../time/time'
import { countInCounts, countInNumbers } from './timeline'

/** What is heard: the first count of a phrase, a count, a half count, a layer's move, a stroke of a rhythm, or a word. */
export type SoundKind = 'phrase' | 'count' | 'and' | Layer | StrokeKind | 'say'

/** A sound on a tick of its part of a program. */
export interface Sound {
  readonly at: Tick
  readonly kind: SoundKind
  /** Share of its usual loudness; 1 where it is not given. */
  readonly loud?: number
  /** What is said. */
  readonly say?: Spoken
}

/** Whether a sound belongs to one of some layers. */
export const isOfLayers = (kind: SoundKind, layers: Iterable<Layer>): boolean =>
  [...layers].some((layer) => layer === kind)

/** Whether it is a count, an “and” or the first of a phrase. */
export const isClick = (kind: SoundKind): boolean =>
  kind === 'phrase' || kind === 'count' || kind === 'and'

/** A word or a few, as they are said. */
export interface Spoken {
  readonly text: string
  /** From the quick bank of the voice, for half counts. */
  readonly isFast: boolean
  /** A count sounds with its vowel on the tick; a cue only has to be over in time. */
  readonly onBeat: boolean
}

/** A stretch that is played in one go: a count-in, or some ticks of one side. */
export interface Part {
  readonly length: Tick
  readonly tempo: Tempo
  readonly sounds: readonly Sound[]
  /** Absent in a count-in without a pickup. */
  readonly dance?: { readonly side: Side; readonly from: Tick }
  /** The numbers of a count-in, one a count. */
  readonly countIn?: readonly number[]
}

/** What is played: parts in turn; the ones from `loopFrom` on are played again and again. */
export interface Program {
  readonly parts: readonly Part[]
  readonly loopFrom?: number | undefined
}

/** Ticks of the combination, half-open. */
export interface Range {
  readonly from: Tick
  readonly to: Tick
}

/**
 * A lead-in that says the last counts of an 8: four or more, or as many as the pickup needs.
 * The pickup of the side that follows is danced in it.
 */
export function countIn(
  tempo: Tempo,
  into?: { simulation: Simulation; side: Side },
  least = 4,
): Part {
  const combination = into?.simulation.combination
  const counts = Math.max(least, combination ? countInCounts(combination) : 0)
  const length = tick(counts * TICKS_PER_COUNT)
  const numbers = countInNumbers(counts)
  const clicks = numbers.map((_, i): Sound => ({ at: tick(i * TICKS_PER_COUNT), kind: 'count' }))
  const pickup = into && combination?.pickup ? movesHeard(into.simulation) : []
  const early = pickup
    .filter(({ at }) => at < 0)
    .map(({ at, kind }) => ({ at: tick(at + length), kind }))
  return {
    length,
    tempo,
    countIn: numbers,
    sounds: [...clicks, ...early].sort((a, b) => a.at - b.at),
    ...(into && combination?.pickup && { dance: { side: into.side, from: tick(0 - length) } }),
  }
}

/** What is heard of the layers: landings and sways of the feet, the starts of the others. */
function movesHeard(simulation: Simulation): readonly Sound[] {
  const landings = simulation.danced
    .filter(({ action }) => factsOf(action.primitive).lands || action.primitive === 'sway')
    .map(({ at }): Sound => ({ at, kind: 'feet' }))
  const starts = simulation.passes.flatMap((pass) =>
    pass.events
      .filter((event) => event.layer !== 'feet')
      .map((event): Sound => ({ at: tick(pass.at + event.at), kind: event.layer })),
  )
  return [...landings, ...starts]
}

/** Some ticks of one side, with a click a count, a quieter one on `&`, and the layers' own sounds. */
export function dancePart(simulation: Simulation, side: Side, range: Range, tempo: Tempo): Part {
  const inside = (at: number) => at >= range.from && at < range.to
  const clicks = simulation.passes.flatMap((pass) =>
    Array.from({ length: pass.length / HALF_COUNT }, (_, i): Sound => {
      const at = tick(pass.at + i * HALF_COUNT)
      return { at, kind: i === 0 ? 'phrase' : at % COUNT === 0 ? 'count' : 'and' }
    }),
  )
  const sounds = [...clicks, ...movesHeard(simulation)]
    .filter(({ at }) => inside(at))
    .map(({ at, kind }) => ({ at: tick(at - range.from), kind }))
    .sort((a, b) => a.at - b.at)
  return { length: tick(range.to - range.from), tempo, sounds, dance: { side, from: range.from } }
}
