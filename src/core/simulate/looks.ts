import { shorterWay } from '../body/facing'
import { GAZE_ANGLES, type Gaze, type HeadAngles, PARTNER_DEGREES } from '../body/places'
import { SIDES, type Side } from '../body/side'
import { claimOf } from '../combination/claims'
import { courseOf, type Run } from './course'
import { type Simulation, stateAt } from './simulate'

/** A head turns no further than this, in degrees; the eyes do the rest to a side (h). */
const FARTHEST_LOOK = 80

/** Degrees to the right of where one faces at a tick that somebody is at: the audience, or the partner. */
export function seenAt(simulation: Simulation, at: number, who: 'audience' | 'partner'): number {
  const { partner = 'front', facing } = simulation.combination.start
  const stands = who === 'partner' ? facing + PARTNER_DEGREES[partner] : 0
  return shorterWay(stands - stateAt(simulation, at).facing)
}

/**
 * How the head is held at the end of a look. The audience is where the room's front is by then; the
 * hand is the one that set off last, straight ahead where both did.
 */
export function lookAngles(
  simulation: Simulation,
  { at, end }: Pick<Run, 'at' | 'end'>,
  gaze: Gaze,
): HeadAngles {
  if (gaze === 'audience' || gaze === 'partner') {
    const turn = seenAt(simulation, end, gaze)
    return { turn: Math.max(-FARTHEST_LOOK, Math.min(FARTHEST_LOOK, turn)), nod: 0, tilt: 0 }
  }
  if (gaze === 'hand') {
    const hand = handSentLast(simulation, at)
    return hand ? GAZE_ANGLES[`hand-${hand}`] : GAZE_ANGLES.hand
  }
  return GAZE_ANGLES[gaze]
}

/** The hand that set off last up to a tick; undefined where both did, or none. */
function handSentLast(simulation: Simulation, at: number): Side | undefined {
  const last = courseOf(simulation).findLast((run) => run.event.layer === 'arms' && run.at <= at)
  if (!last) return undefined
  const { parts } = claimOf(last.event, simulation.vocabulary)
  const sent = SIDES.filter((side) => parts.includes(side === 'R' ? 'armR' : 'armL'))
  return sent.length === 1 ? sent[0] : undefined
}
