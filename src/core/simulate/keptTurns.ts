import { onceRound } from '../body/facing'
import { type Direction, type FootAction, WAY_ANGLES } from '../body/feet'
import { negated, signOf } from '../body/side'

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
  const angle = direction && WAY_ANGLES[direction]
  const isBehind = onceRound(shift) === 180
  const turns = turn === undefined ? {} : { turn: negated(turn) }
  if (jump === 'R' || jump === 'L')
    return { ...action, ...turns, ...(isBehind && { jump: jump === 'R' ? 'L' : 'R' }) }
  if (jump && direction && isBehind)
    return { ...action, ...turns, direction: direction === 'back' ? 'forward' : 'back' }
  if (angle === undefined || !foot || shift % 360 === 0) return { ...action, ...turns }
  // A free leg can't cross the room behind itself: gestures of the leg stay as they are.
  if (AHEAD_ONLY.has(action.primitive)) return { ...action, ...turns }
  return { ...action, ...turns, direction: wayTo(angle + signOf(foot) * shift) }
}
