import { factsOf } from '../../body/feet'
import { negated, otherSide } from '../../body/side'
import { isOnToes } from '../../simulate/primitives'
import {
  beforeStep,
  type DancedStep,
  idleSharesIn,
  type Simulation,
  stateAt,
  stateBefore,
} from '../../simulate/simulate'
import { tick } from '../../time/time'
import { aboutStep, type Danceable, type Rule, spotIn } from '../rule'
import { EIGHT } from '../withinEight'

/** Turns against crossed feet, and written facings that are not the sum of the turns (model 8). */
export const turns: Rule = {
  id: 'turns',
  *check(danceable) {
    yield* blocked(danceable)
    yield* planted(danceable)
    yield* low(danceable)
    yield* many(danceable)
    yield* sums(danceable)
    yield* idle(danceable)
  },
}

/** Turns that no step shares. */
function* idle({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const pass of simulation.passes)
    for (const { event, degrees } of idleSharesIn(pass.events, simulation.vocabulary))
      yield {
        code: 'turn.idle',
        degrees,
        spot: spotIn(pass, tick(pass.at + event.at), 'feet'),
        events: [event.id],
      }
}

function* blocked({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const step of simulation.danced) {
    const { turn, primitive } = step.action
    // A step takes the crossed foot along; only feet that stay can wind up.
    if (!turn || factsOf(primitive).lands) continue
    const { crossed } = stateBefore(simulation, step.at)
    if (!crossed) continue
    const inFront = crossed.way === 'front' ? crossed.foot : otherSide[crossed.foot]
    if (turn > 0 === (inFront === 'R'))
      yield {
        code: 'turn.blocked',
        degrees: turn,
        ...crossed,
        ...aboutStep(step),
      }
  }
}

/** Both feet flat on the floor turn a little by themselves; further they must be on their balls. */
function* planted({ simulation, house }: Danceable): ReturnType<Rule['check']> {
  const most = house.limits['turn.planted']
  for (const step of simulation.danced) {
    const { turn = 0, primitive } = step.action
    if (Math.abs(turn) <= most) continue
    const before = stateBefore(simulation, step.at + (primitive === 'pivot' ? 0.5 : 0))
    const isPivot = primitive === 'pivot' && before.weight === 'both'
    const isSway = factsOf(primitive).needs === 'both-on-floor'
    if ((isPivot || isSway) && !isOnToes(before))
      yield { code: 'turn.planted', degrees: turn, most, ...aboutStep(step) }
  }
}

/** From so far a turn over bent knees needs the ball of the foot, in degrees. */
const LOW_TURN = { low: 180, deep: 90 } as const

/** A turn over a flat foot with bent knees (model 8). */
function* low({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const slice of simulation.slices)
    for (const [i, step] of slice.danced.entries()) {
      const { turn = 0 } = step.action
      if (turn === 0) continue
      const { level, weight, feet } = beforeStep(slice, i)
      if (level !== 'low' && level !== 'deep') continue
      const isFlat = weight !== 'both' && feet[weight].contact === 'flat'
      if (isFlat && Math.abs(turn) >= LOW_TURN[level])
        yield { code: 'turn.low', degrees: turn, level, ...aboutStep(step) }
    }
}

/** More turning one way within 8 counts than a level takes; once a run. */
function* many({ simulation, house, level }: Danceable): ReturnType<Rule['check']> {
  const most = house.limits[`turn.many.${level}`]
  let run: readonly DancedStep[] = []
  let isSaid = false
  for (const step of simulation.danced) {
    const { turn = 0 } = step.action
    if (turn === 0) continue
    const isSameWay = turn * (run[0]?.action.turn ?? turn) > 0
    run = [...(isSameWay ? run : []), step].filter(({ at }) => at > step.at - EIGHT)
    const degrees = Math.abs(run.reduce((sum, { action }) => sum + (action.turn ?? 0), 0))
    if (degrees > most && !isSaid)
      yield { code: 'turn.many', degrees, most, level, ...aboutStep(step) }
    isSaid = degrees > most
  }
}

function* sums({ simulation }: Danceable): ReturnType<Rule['check']> {
  for (const pass of simulation.passes) {
    const { facing: base } = stateBefore(simulation, pass.at)
    for (const { at, degrees } of pass.phrase.facings ?? []) {
      const { facing } = stateAt(simulation, pass.at + at)
      const written = writtenFor(simulation, pass.mirrored ? negated(degrees) : degrees)
      if (!isMeant(written, facing, base))
        yield {
          code: 'turn.sum',
          written,
          facing,
          spot: spotIn(pass, tick(pass.at + at), 'feet'),
          events: [],
        }
    }
  }
}

/**
 * Whether a written facing is where the turns lead. A wall is a wall however often one has turned;
 * who writes a whole turn means this one, from whatever wall the phrase began on.
 */
function isMeant(written: number, facing: number, base: number): boolean {
  if ((facing - written) % 360 !== 0) return false
  if (Math.abs(written) < 360) return true
  const begun = written - (facing - base)
  return Math.abs(begun) < 360
}

/** Where turns are kept, the other side faces where the written one does, seen from its own start. */
const writtenFor = ({ combination }: Simulation, degrees: number): number =>
  combination.otherTurns ? 2 * combination.start.facing - degrees : degrees
