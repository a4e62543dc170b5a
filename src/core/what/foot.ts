import { z } from 'zod'
import { type Direction, FootAction, mirrorFootAction } from '../body/feet'
import { type Side, sideWord } from '../body/side'
import type { Kind } from './kind'

/** One thing the feet do. */
export const FootWhat = z.object({ kind: z.literal('foot'), action: FootAction }).readonly()
type FootWhat = z.infer<typeof FootWhat>

export const foot: Kind<FootWhat> = {
  layers: ['feet'],
  side: ({ action }) => (action.jump === 'R' || action.jump === 'L' ? action.jump : action.foot),
  mirror: (what) => ({ ...what, action: mirrorFootAction(what.action) }),
  name: ({ action }) => nameOfAction(action),
  claim: () => ({ kind: 'steps', parts: ['feet'], wave: false }),
  leaves: (_, before) => before,
  motion: () => [],
  write: ({ action }) => actionText(action),
  say: ({ action }) => sayAction(action),
}

export function nameOfAction(action: FootAction): string {
  const { primitive, foot, direction, size, contact, turn, jump } = action
  const words = [
    primitive,
    foot,
    jump,
    direction,
    size,
    contact,
    primitive === 'pivot' ? `${turn}°` : turn && `turn ${turn}°`,
  ]
  return words.filter(Boolean).join(' ')
}

/** `step R side turn 90 small ball`. */
export function actionText({
  primitive,
  foot,
  jump,
  direction,
  turn,
  size,
  contact,
}: FootAction): string {
  return [
    primitive,
    foot,
    jump,
    direction,
    turn !== undefined && (primitive === 'pivot' ? turn : `turn ${turn}`),
    size,
    contact,
  ]
    .filter((word) => word !== undefined && word !== false)
    .join(' ')
}

function directionWords(direction: Direction, foot: Side): string {
  switch (direction) {
    case 'side':
      return `to the ${sideWord[foot]}`
    case 'together':
      return 'beside the other'
    case 'in-place':
      return 'in place'
    case 'diag-forward':
      return `forward to the ${sideWord[foot]}`
    case 'diag-back':
      return `back to the ${sideWord[foot]}`
    case 'cross-front':
      return 'across in front'
    case 'cross-behind':
      return 'across behind'
    default:
      return direction
  }
}

const turnWords = (degrees: number): string =>
  `turning ${Math.abs(degrees)}° to the ${degrees > 0 ? 'right' : 'left'}`

/** One thing the feet do as a sentence without its full stop: “left foot touches beside the other”. */
export function sayAction(action: FootAction): string {
  const { primitive, foot, direction, turn, size, contact } = action
  const who = foot ? `${sideWord[foot]} foot` : ''
  const turning = turn ? `, ${turnWords(turn)}` : ''
  switch (primitive) {
    case 'close':
      return `${who} closes${turning}`
    case 'sway':
      return `sway onto the ${who}${turning}`
    case 'hop':
      return `hop on the ${who}${turning}`
    case 'heel':
      return `${who} puts its heel ${directionWords(direction ?? 'forward', foot ?? 'R')}${turning}`
    case 'lift':
      return `${who} lifts${direction === 'forward' ? '' : ` ${directionWords(direction ?? 'forward', foot ?? 'R')}`}${turning}`
    case 'centre':
      return 'weight onto both feet'
    case 'pivot':
      return `stay on the spot, ${turnWords(turn ?? 0)}`
    case 'jump':
      return `jump onto both feet${turning}`
    case 'rise':
      return 'rise onto the toes'
    case 'lower':
      return 'heels down'
    case 'bend':
      return 'bend the knees'
    case 'straighten':
      return 'stand tall, knees not locked'
    case 'hold':
      return 'hold'
    default: {
      const verb = primitive.endsWith('h') ? `${primitive}es` : `${primitive}s`
      const how = [
        size === 'small' ? ' small' : size === 'large' ? ' wide' : '',
        contact ? ` on the ${contact}` : '',
      ]
      return `${who} ${verb} ${directionWords(direction ?? 'in-place', foot ?? 'R')}${how.join('')}${turning}`
    }
  }
}
