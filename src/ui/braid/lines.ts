import type { Combination, Phrase } from '../../core/combination/combination'
import type { Dancing } from '../../core/combination/dancing'
import type { DancedEvent } from '../../core/combination/lengths'
import { leadingInto, type Pass, pickupBefore } from '../../core/combination/passes'
import { type Heat, heatOf } from '../../core/load/heat'
import { type Simulation, stateBefore } from '../../core/simulate/simulate'
import { type UnwrittenWay, unwrittenWays } from '../../core/simulate/unwritten'
import { checkedOf, simulationFrom } from '../stores/checked'
import { dancingsShown, documentOf, layersShown, type SessionState } from '../stores/state'
import { type LineShape, shapeLine } from './geometry'
import { heightUnder } from './UnderFeet'

/** One line of the braid: a phrase as it is danced on one side. */
export interface Line {
  readonly pass: Pass
  /** What leads into it over the end of the line above, on its own ticks. */
  readonly early: readonly DancedEvent[]
  readonly dancing: Dancing
  readonly simulation: Simulation
  readonly shape: LineShape
  /** The phrase as it is stored, and what else the drawing hangs on. */
  readonly phrase: Phrase
  readonly drawnFrom: string
  /** How hard each count is, against what the level takes. */
  readonly heat: readonly Heat[]
  /** Movements nobody wrote. */
  readonly hairs: readonly UnwrittenWay[]
}

/** What the drawing of a line hangs on besides its phrase: how the body comes into it. */
function drawnFrom(simulation: Simulation, pass: Pass, shown: string): string {
  const { weight, level, stands, feet, moment } = stateBefore(simulation, pass.at)
  const { index, at, mirrored, time, times } = pass
  const { keepTurns, otherTurns } = simulation.combination
  const turns = keepTurns ? (otherTurns ? 'other' : 'kept') : ''
  const body = [turns, weight, level, stands, moment, feet.R.contact, feet.L.contact]
  return [shown, index, at, mirrored, time, times, ...body].join(' ')
}

/** Ticks before count 1 that every line leaves room for, so that counts stand under counts. */
const roomBefore = (combination: Combination): number =>
  Math.max(...combination.order.map((_, index) => pickupBefore(combination, index)))

/**
 * The lines of the braid from the top. A line whose phrase and way in have not changed is
 * the very one from before, so that an edit draws only what it changed.
 */
export function linesOf(
  state: SessionState,
  width: number,
  before: readonly Line[],
): readonly Line[] {
  const document = documentOf(state)
  const shown = layersShown(state)
  const checked = checkedOf(document)
  const phrases = new Map(document.phrases.map((phrase) => [phrase.id, phrase]))
  return document.order.flatMap((entry, index) =>
    dancingsShown(state).flatMap((dancing) => {
      const simulation = simulationFrom(document, dancing)
      const pass = simulation.passes[index]
      const phrase = phrases.get(entry.phrase)
      if (!pass || !phrase) return []
      const pickup = roomBefore(document)
      const early = leadingInto(simulation.passes, pass).events
      const heat = heatOf(checked, pass.index)
      const hairs = unwrittenWays(simulation, pass)
      const extras = JSON.stringify([heat, hairs, early])
      const from = drawnFrom(
        simulation,
        pass,
        `${dancing.part} ${dancing.side} ${width} ${state.only} ${pickup} ${extras}`,
      )
      const same = before.find(
        (line) =>
          line.phrase === phrase &&
          line.drawnFrom === from &&
          line.simulation.vocabulary === simulation.vocabulary,
      )
      if (same) return [same]
      const under = heightUnder(simulation, pass)
      const shape = shapeLine([...early, ...pass.events], pass.length, width, shown, pickup, under)
      return [{ pass, early, dancing, simulation, shape, phrase, drawnFrom: from, heat, hairs }]
    }),
  )
}
