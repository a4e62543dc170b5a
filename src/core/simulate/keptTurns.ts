import type { Direction, FootAction } from '../body/feet'
import { negated, type Side, signOf } from '../body/side'

/** Where each way leads, in degrees to the foot's own side from forward. */
const ANGLE: Readonly<Partial<Record<Direction, number>>> = {
  forward: 0,
  'diag-forward': 45,
  side: 90,
  'diag-back': 135,
  back: 180,
  'cross-behind': -135,
  'cross-front': -45,
}

/** The way that leads to an angle; a step straight across goes in front. */
function wayTo(angle: number): Direction {
  const eighth = ((Math.round(angle / 45) % 8) + 8) % 8
  const ways = ['forward', 'diag-forward', 'side', 'diag-back', 'back'] as const
  return ways[eighth] ?? (eighth === 5 ? 'cross-behind' : 'cross-front')
}

const AHEAD_ONLY = new Set(['kick', 'brush', 'lift'])

/**
 * A mirrored step whose turn keeps its direction (model 6): the way over the floor stays the
 * mirrored one, so its word is the one that leads there from the kept facing.
 * @param shift degrees by which the mirrored facing is ahead of the kept one.
 */
export function withKeptTurn(action: FootAction, shift: number): FootAction {
  const { direction, foot, turn, jump } = action
  const angle = direction && ANGLE[direction]
  const aside = (side: Side) => ((shift % 360) + 360) % 360 === 180 && side
  const turns = turn === undefined ? {} : { turn: negated(turn) }
  if (jump === 'R' || jump === 'L')
    return { ...action, ...turns, ...(aside(jump) && { jump: jump === 'R' ? 'L' : 'R' }) }
  if (jump && direction && ((shift % 360) + 360) % 360 === 180)
    return { ...action, ...turns, direction: direction === 'back' ? 'forward' : 'back' }
  if (angle === undefined || !foot || shift % 360 === 0) return { ...action, ...turns }
  // A free leg can't cross the room behind itself: gestures of the leg stay as they are.
  if (AHEAD_ONLY.has(action.primitive)) return { ...action, ...turns }
  return { ...action, ...turns, direction: wayTo(angle + signOf(foot) * shift) }
}
