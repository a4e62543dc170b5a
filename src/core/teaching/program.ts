import { factsOf } from '../body/feet'
import type { Side } from '../body/side'
import type { Layer } from '../moves/move'
import type { Simulation } from '../simulate/simulate'
import type { Tempo } from '../time/tempo'
import { COUNT, HALF_COUNT, TICKS_PER_COUNT, type Tick, tick } from '../time/time'

/** What is heard: the first count of a phrase, a count, a half count, or a layer's move. */
export type SoundKind = 'phrase' | 'count' | 'and' | Layer

/** A sound on a tick of its part of a program. */
export interface Sound {
  readonly at: Tick
  readonly kind: SoundKind
}

/** A stretch that is played in one go: a count-in, or some ticks of one side. */
export interface Part {
  readonly length: Tick
  readonly tempo: Tempo
  readonly sounds: readonly Sound[]
  /** Absent in a count-in. */
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

/** A four-count lead-in that says the last counts of an 8. */
export function countIn(tempo: Tempo): Part {
  const numbers = [5, 6, 7, 8]
  return {
    length: tick(numbers.length * TICKS_PER_COUNT),
    tempo,
    countIn: numbers,
    sounds: numbers.map((_, i) => ({ at: tick(i * TICKS_PER_COUNT), kind: 'count' })),
  }
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
  const landings = simulation.danced
    .filter(({ action }) => factsOf(action.primitive).lands || action.primitive === 'sway')
    .map(({ at }): Sound => ({ at, kind: 'feet' }))
  const starts = simulation.passes.flatMap((pass) =>
    pass.events
      .filter((event) => event.layer !== 'feet')
      .map((event): Sound => ({ at: tick(pass.at + event.at), kind: event.layer })),
  )
  const sounds = [...clicks, ...landings, ...starts]
    .filter(({ at }) => inside(at))
    .map(({ at, kind }) => ({ at: tick(at - range.from), kind }))
    .sort((a, b) => a.at - b.at)
  return { length: tick(range.to - range.from), tempo, sounds, dance: { side, from: range.from } }
}
