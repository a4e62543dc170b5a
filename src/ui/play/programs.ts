import { otherSide, type Side } from '../../core/body/side'
import type { Combination } from '../../core/combination/combination'
import { countIn, dancePart, type Program, type Range } from '../../core/teaching/program'
import type { TeachStep } from '../../core/teaching/steps'
import type { Tempo } from '../../core/time/tempo'
import { endOf, tick } from '../../core/time/time'
import { simulationFrom } from '../stores/checked'
import type { Selection } from '../stores/session'

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

/** Counts a minute as it is played. */
export const playedTempo = ({ tempo, speed }: PlayChoice): Tempo => tempo * speed

const whole = (combination: Combination): Range => ({
  from: tick(0),
  to: simulationFrom(combination, combination.lead).length,
})

function rangeOf(combination: Combination, loop: LoopMode, selection: Selection): Range {
  const pass = simulationFrom(combination, combination.lead).passes[selection.pass]
  if (loop === 'all' || !pass) return whole(combination)
  if (loop === 'phrase') return { from: pass.at, to: endOf(pass) }
  const { length } = simulationFrom(combination, combination.lead)
  const from = tick(pass.at + selection.at)
  const to = tick(Math.min(length, from + selection.length))
  // What was selected may have been taken out since.
  return from < to ? { from, to } : whole(combination)
}

/** What the Studio plays: a count-in, then the chosen side or both in turn, again and again. */
export function studioProgram(
  combination: Combination,
  choice: PlayChoice,
  selection: Selection,
): Program {
  const { sides, loop } = choice
  const tempo = playedTempo(choice)
  const { lead } = combination
  const range = rangeOf(combination, loop, selection)
  const danced = sides === 'turn' ? [lead, otherSide[lead]] : [sides]
  const parts = danced.map((side) =>
    dancePart(simulationFrom(combination, side), side, range, tempo),
  )
  const [first = lead] = danced
  const into =
    range.from === 0 ? { simulation: simulationFrom(combination, first), side: first } : undefined
  return { parts: [countIn(tempo, into), ...parts], loopFrom: 1 }
}

/** One step of teaching: each side with its own count-in, once. */
export function teachProgram(combination: Combination, { sides, tempo }: TeachStep): Program {
  const range = whole(combination)
  return {
    parts: sides.flatMap((side) => [
      countIn(tempo, { simulation: simulationFrom(combination, side), side }),
      dancePart(simulationFrom(combination, side), side, range, tempo),
    ]),
  }
}
