import { z } from 'zod'
import {
  type Direction,
  FootAction,
  factsOf,
  JumpTo,
  mirrorFootAction,
  Primitive,
} from '../body/feet'
import { type Side, sideWord } from '../body/side'
import { DIRECTIONS, directionIn } from '../entry/directions'
import { squashed } from '../entry/names'
import { degreesIn, type Options } from '../entry/options'
import { type Finished, type Read, refuse } from '../entry/read'
import { EntryProblem, type Reader, sideIn } from '../entry/reader'
import { type EntryKind, type Kind, ONCE } from './kind'

/** One thing the feet do. */
export const FootWhat = z
  .object({
    kind: z.literal('foot'),
    action: FootAction.refine(({ primitive }) => primitive !== 'free', 'is no step'),
  })
  .readonly()
type FootWhat = z.infer<typeof FootWhat>

export const foot: Kind<FootWhat> = {
  layers: ['feet'],
  ...ONCE,
  side: ({ action }) => (action.jump === 'R' || action.jump === 'L' ? action.jump : action.foot),
  mirror: (what) => ({ ...what, action: mirrorFootAction(what.action) }),
  name: ({ action }) => nameOfAction(action),
  claim: () => ({ kind: 'steps', parts: ['feet'], wave: false }),
  leaves: (_, before) => before,
  motion: () => [],
  write: ({ action }) => actionText(action),
  say: ({ action }) => sayAction(action),
}

export const footEntry: EntryKind<FootWhat> = {
  words: [],
  read: readStep,
  finish: finishStep,
}

export function nameOfAction(action: FootAction): string {
  const { primitive, foot, direction, size, contact, turn, jump, shared } = action
  const words = [
    primitive,
    foot,
    jump,
    direction,
    size,
    contact,
    shared && 'both',
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
  shared,
}: FootAction): string {
  return [
    primitive,
    foot,
    jump,
    direction,
    turn !== undefined && (primitive === 'pivot' ? turn : `turn ${turn}`),
    size,
    contact,
    shared && 'both',
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
  const { primitive, foot, direction, turn, size, contact, shared } = action
  const onBoth = shared ? ', weight on both feet' : ''
  const who = foot ? `${sideWord[foot]} foot` : ''
  const turning = turn ? `, ${turnWords(turn)}` : ''
  switch (primitive) {
    case 'close':
      return `${who} closes${turning}${onBoth}`
    case 'press':
      return `${who} presses ${directionWords(direction ?? 'forward', foot ?? 'R')}, half the weight${turning}`
    case 'recover':
      return `back onto the ${who}${turning}`
    case 'low':
      return 'low from here'
    case 'deep':
      return 'deep from here'
    case 'tall':
      return 'tall from here, knees not locked'
    case 'toes':
      return 'on the toes from here'
    case 'up':
      return 'up again, knees soft'
    case 'sway':
      return `sway onto the ${who}${turning}`
    case 'hop':
      return `hop ${direction ? `${directionWords(direction, foot ?? 'R')} ` : ''}on the ${who}${turning}`
    case 'heel':
      return `${who} puts its heel ${directionWords(direction ?? 'forward', foot ?? 'R')}${turning}`
    case 'lift':
      return `${who} lifts${direction === 'forward' ? '' : ` ${directionWords(direction ?? 'forward', foot ?? 'R')}`}${turning}`
    case 'centre':
      return 'weight onto both feet'
    case 'pivot':
      return `stay on the spot, ${turnWords(turn ?? 0)}`
    case 'jump':
      return `jump ${direction ? `${direction} ` : ''}onto both feet${turning}`
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
      return `${who} ${verb} ${directionWords(direction ?? 'in-place', foot ?? 'R')}${how.join('')}${turning}${onBoth}`
    }
  }
}

/** Other words for coming up again. */
const UP_AGAIN: ReadonlySet<string> = new Set(['down', 'soft'])

/** `step R side`; a foot left out is filled in when the weight is known. */
function readStep(reader: Reader): Read<FootWhat> | undefined {
  const word = reader.peek()
  const said = word?.text.toLowerCase() ?? ''
  const primitive = Primitive.safeParse(UP_AGAIN.has(said) ? 'up' : said).data
  if (!word || !primitive) return undefined
  reader.take()
  const facts = factsOf(primitive)
  const action: Record<string, unknown> = { primitive }
  for (let token = reader.peek(); token; token = reader.peek()) {
    const side = sideIn(token)
    const two = reader.peek(1)
    const pair = two && !two.quoted ? DIRECTIONS.get(squashed(token.text + two.text)) : undefined
    const direction = pair ?? directionIn(token.text)
    const jump = primitive === 'jump' ? JumpTo.safeParse(side ?? token.text) : undefined
    if (token.quoted) break
    if (jump?.success) action.jump = jump.data
    else if (side) {
      if (!facts.foot) throw new EntryProblem(`“${primitive}” takes no foot.`, token)
      action.foot = side
    } else if (direction) {
      if (!facts.direction && direction !== 'in-place' && !facts.travels?.includes(direction))
        throw new EntryProblem(
          facts.travels
            ? `“${primitive}” goes ${facts.travels.join(', ')}.`
            : `“${primitive}” takes no direction.`,
          token,
        )
      if (!facts.direction && !facts.travels)
        throw new EntryProblem(`“${primitive}” takes no direction.`, token)
      if (facts.direction || direction !== 'in-place') action.direction = direction
      if (pair) reader.take()
    } else if (primitive === 'pivot' && /^[+-]?\d+([.]5|[.]0)?$/.test(token.text)) {
      action.turn = degreesIn(token)
    } else break
    reader.take()
  }
  if (facts.direction && !action.direction) action.direction = facts.direction
  if (primitive === 'jump' && !action.jump)
    throw new EntryProblem('Say where the jump lands: jump both, out, in, R or L.', word)
  const open = facts.foot && action.foot === undefined
  // A foot left out is filled in when the weight is known; R stands in until then.
  if (open) action.foot = 'R'
  return { what: { kind: 'foot', action: action as FootAction }, open }
}

function finishStep({ what, open = false }: Read<FootWhat>, options: Options): Finished<FootWhat> {
  const { side, turn, word, contact, shared } = options
  const isOpen = open && side === undefined
  if (side && !factsOf(what.action.primitive).foot)
    refuse(`“${what.action.primitive}” takes no foot.`)
  if (options.size !== undefined) refuse('Of a step, write small or large.')
  const action = {
    ...what.action,
    ...(side && { foot: side }),
    ...(turn !== undefined && turn !== 0 && { turn }),
    ...(word && { size: word }),
    ...(contact && { contact }),
    ...(shared && { shared }),
  }
  if (action.direction && (action.jump === 'R' || action.jump === 'L'))
    refuse('A jump to a side goes there: write jump both forward, or leap forward.')
  if (shared && !factsOf(action.primitive).shares)
    refuse(`“${action.primitive}” leaves no weight on both feet: write a step, a close or a leap.`)
  if (contact === 'flat' && !['touch', 'press'].includes(action.primitive))
    refuse('Only a touch or a press is said to be flat: a step is so without it.')
  if (action.primitive === 'hold' && action.turn) refuse('A hold cannot turn: write a pivot.')
  if (action.primitive === 'pivot' && !action.turn)
    refuse('A pivot needs its degrees: pivot 180, or pivot -90 to the left.')
  return { what: { kind: 'foot', action }, open: isOpen }
}
