import { z } from 'zod'
import { negated, otherSide, Side } from './side'

const DIRECTIONS = [
  'in-place',
  'together',
  'side',
  'forward',
  'back',
  'diag-forward',
  'diag-back',
  'cross-front',
  'cross-behind',
] as const
/** Where a foot goes, seen from the dancer as she faces before this event's own turn (model 4). */
export const Direction = z.enum(DIRECTIONS)
export type Direction = z.infer<typeof Direction>

/** How much of the foot is on the floor. */
export const Contact = z.enum(['flat', 'ball', 'heel', 'air'])
export type Contact = z.infer<typeof Contact>

export const JumpTo = z.enum(['both', 'out', 'in', 'R', 'L'])
export type JumpTo = z.infer<typeof JumpTo>

/** What a primitive needs of the weight, and so which fault it makes when it is not met. */
type Need = 'free' | 'free-touch' | 'home' | 'loaded' | 'support' | 'both-on-floor' | 'nothing'

interface PrimitiveFacts {
  /** Takes a foot. */
  readonly foot: boolean
  /** The direction meant when none is written; absent for primitives that take none. */
  readonly direction?: Direction
  /** Puts a foot down, so it counts as a landing and may turn the facing. */
  readonly lands: boolean
  readonly needs: Need
  /** May go somewhere where a direction is written. */
  readonly travels?: readonly Direction[]
  /** May leave the weight on both feet. */
  readonly shares?: true
  /** Changes the level only, so it may share its tick with one other feet event. */
  readonly levelOnly?: true
  readonly contact?: Contact
}

/** Where each way leads, in degrees to the foot's own side from forward. */
export const WAY_ANGLES: Readonly<Partial<Record<Direction, number>>> = {
  side: 90,
  forward: 0,
  back: 180,
  'diag-forward': 45,
  'diag-back': 135,
  'cross-front': -45,
  'cross-behind': -135,
}

/** Where a hop goes, and a jump onto both feet. */
const HOPS = DIRECTIONS.filter((direction) => WAY_ANGLES[direction] !== undefined)
const JUMPS: readonly Direction[] = ['forward', 'back']

/** The foot primitives of model 4. */
export const PRIMITIVES = {
  step: {
    foot: true,
    direction: 'in-place',
    lands: true,
    needs: 'free',
    contact: 'flat',
    shares: true,
  },
  close: { foot: true, lands: true, needs: 'free', contact: 'flat', shares: true },
  /** Takes half the weight, and gives it back. */
  press: { foot: true, direction: 'forward', lands: true, needs: 'free-touch', contact: 'ball' },
  /** The weight comes home onto a foot that stays where it is. */
  recover: { foot: true, lands: false, needs: 'home', contact: 'flat' },
  touch: { foot: true, direction: 'in-place', lands: true, needs: 'free-touch', contact: 'ball' },
  heel: { foot: true, direction: 'in-place', lands: true, needs: 'free-touch', contact: 'heel' },
  stamp: { foot: true, direction: 'in-place', lands: true, needs: 'free-touch', contact: 'flat' },
  sweep: { foot: true, direction: 'together', lands: false, needs: 'free-touch', contact: 'ball' },
  drag: { foot: true, direction: 'together', lands: false, needs: 'free-touch', contact: 'ball' },
  brush: { foot: true, direction: 'forward', lands: false, needs: 'free-touch', contact: 'air' },
  kick: { foot: true, direction: 'forward', lands: false, needs: 'free-touch', contact: 'air' },
  lift: {
    foot: true,
    direction: 'forward',
    lands: false,
    needs: 'free-touch',
    contact: 'air',
  },
  sway: { foot: true, lands: false, needs: 'both-on-floor' },
  centre: { foot: false, lands: false, needs: 'both-on-floor' },
  hop: { foot: true, lands: true, needs: 'loaded', contact: 'flat', travels: HOPS },
  leap: {
    foot: true,
    direction: 'in-place',
    lands: true,
    needs: 'free',
    contact: 'flat',
    shares: true,
  },
  jump: { foot: false, lands: true, needs: 'nothing', contact: 'flat', travels: JUMPS },
  pivot: { foot: false, lands: false, needs: 'support' },
  rise: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  lower: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  bend: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  straighten: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  // Heights that last, until it comes up again.
  low: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  deep: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  tall: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  toes: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  up: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  hold: { foot: false, lands: false, needs: 'nothing', levelOnly: true },
  /** As one likes: it ends with the weight on both feet. No step of its own, but what free counts come to. */
  free: { foot: false, lands: false, needs: 'nothing' },
} as const satisfies Record<string, PrimitiveFacts>

const PRIMITIVE_WORDS = Object.keys(PRIMITIVES) as [
  keyof typeof PRIMITIVES,
  ...(keyof typeof PRIMITIVES)[],
]
export const Primitive = z.enum(PRIMITIVE_WORDS)
export type Primitive = z.infer<typeof Primitive>
/** Those that can be written as a step. */
export const STEP_WORDS: readonly Primitive[] = PRIMITIVE_WORDS.filter((one) => one !== 'free')

export const factsOf = (primitive: Primitive): PrimitiveFacts => PRIMITIVES[primitive]

/** Degrees, clockwise from above, in halves; a full turn right is 360. */
export const Turn = z.number().multipleOf(0.5).min(-1080).max(1080)

/**
 * One thing the feet do. A foot or a direction that was left out has been filled in
 * when it was written, so a stored action always says which foot it means.
 */
export const FootAction = z
  .object({
    primitive: Primitive,
    foot: Side.optional(),
    direction: Direction.optional(),
    turn: Turn.optional(),
    size: z.enum(['small', 'large']).optional(),
    /** Of the foot, where it is not what is usual. */
    contact: z.enum(['ball', 'heel', 'flat']).optional(),
    /** The weight is on both feet after it. */
    shared: z.literal(true).optional(),
    jump: JumpTo.optional(),
  })
  .superRefine((action, context) => {
    const facts = factsOf(action.primitive)
    const refuse = (path: string, message: string) =>
      context.addIssue({ code: 'custom', path: [path], message })
    if (facts.foot !== (action.foot !== undefined))
      refuse('foot', `${action.primitive} ${facts.foot ? 'needs a foot' : 'takes no foot'}`)
    const mayGo = action.direction !== undefined && facts.travels?.includes(action.direction)
    if (!mayGo && (facts.direction !== undefined) !== (action.direction !== undefined))
      refuse(
        'direction',
        `${action.primitive} ${facts.direction ? 'needs a direction' : 'takes no direction'}`,
      )
    if (action.shared && !facts.shares)
      refuse('shared', `${action.primitive} leaves no weight on both feet`)
    if (action.direction && (action.jump === 'R' || action.jump === 'L'))
      refuse('direction', 'a jump to a side goes there and nowhere else')
    if ((action.primitive === 'jump') !== (action.jump !== undefined))
      refuse('jump', 'a jump says where it lands, nothing else does')
    if (action.primitive === 'pivot' && !action.turn) refuse('turn', 'a pivot needs its degrees')
    if (action.primitive === 'hold' && action.turn) refuse('turn', 'a hold cannot turn')
  })
  .readonly()
export type FootAction = z.infer<typeof FootAction>

/** Right and left swap, turns change their sign; directions are the foot's own and stay. */
export const mirrorFootAction = (action: FootAction): FootAction => ({
  ...action,
  ...(action.foot && { foot: otherSide[action.foot] }),
  ...(action.turn !== undefined && { turn: negated(action.turn) }),
  ...((action.jump === 'R' || action.jump === 'L') && { jump: otherSide[action.jump] }),
})
