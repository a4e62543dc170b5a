import { factsOf } from '../../body/feet'
import { negated } from '../../body/side'
import { type Simulation, stateAt, stateBefore } from '../../simulate/simulate'
import { tick } from '../../time/time'
import { type Danceable, type Rule, spotIn } from '../rule'

/** Turns against crossed feet, and written facings that are not the sum of the turns (model 8). */
export const turns: Rule = {
  id: 'turns',
  *check(danceable) {
    yield* blocked(danceable)
    yield* sums(danceable)
  },
}

function* blocked({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const { action, at, pass, event } of simulation.danced) {
    const { turn, primitive } = action
    // A step takes the crossed foot along; only feet that stay can wind up.
    if (!turn || factsOf(primitive).lands) continue
    const { crossed } = stateBefore(simulation, at)
    if (!crossed) continue
    const inFront = crossed.way === 'front' ? crossed.foot : otherOf(crossed.foot)
    if (turn > 0 === (inFront === 'R'))
      yield {
        code: 'turn.blocked',
        degrees: turn,
        ...crossed,
        spot: spotIn(pass, at, 'feet'),
        events: [event.id],
      }
  }
}

const otherOf = (foot: 'R' | 'L') => (foot === 'R' ? 'L' : 'R')

function* sums({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const pass of simulation.passes)
    for (const { at, degrees } of pass.phrase.facings ?? []) {
      const { facing } = stateAt(simulation, pass.at + at)
      const written = writtenFor(simulation, pass.mirrored ? negated(degrees) : degrees)
      // A wall is a wall however often one has turned; who writes a whole turn means it.
      const off = Math.abs(written) >= 360 ? facing - written : (facing - written) % 360
      if (off !== 0)
        yield {
          code: 'turn.sum',
          written,
          facing,
          spot: spotIn(pass, tick(pass.at + at), 'feet'),
          events: [],
        }
    }
}

/** Where turns are kept, the other side faces where the written one does, seen from its own start. */
const writtenFor = ({ combination }: Simulation, degrees: number): number =>
  combination.otherTurns ? 2 * combination.start.facing - degrees : degrees
