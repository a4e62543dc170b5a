import { z } from 'zod'
import type { Primitive } from '../body/feet'
import { ArmsWhat, arms } from './arms'
import { AtWhat, at } from './at'
import { FootWhat, foot } from './foot'
import { FreeWhat, free } from './free'
import type { Kind } from './kind'
import { LegsWhat, legs } from './legs'
import { LookWhat, look } from './look'
import { MoveWhat, move } from './move'
import { ShareWhat, share } from './share'
import { StayWhat, stay } from './stay'
import { ShoulderWhat, shoulder, TrunkWhat, trunk } from './trunk'

/** What is danced. Sides and feet left out were filled in when it was written. */
export const What = z.discriminatedUnion('kind', [
  // Each from its own module, and once more in the list below.
  FootWhat,
  LegsWhat,
  TrunkWhat,
  ShoulderWhat,
  AtWhat,
  ArmsWhat,
  LookWhat,
  ShareWhat,
  FreeWhat,
  StayWhat,
  MoveWhat,
])
export type What = z.infer<typeof What>

/** Every kind by its name; the compiler counts them. */
export const KINDS: { readonly [K in What['kind']]: Kind<Extract<What, { kind: K }>> } = {
  arms,
  look,
  trunk,
  shoulder,
  at,
  share,
  free,
  stay,
  move,
  legs,
  foot,
}

/** Heights that last, until it comes up again. */
const HEIGHTS: ReadonlySet<Primitive> = new Set(['low', 'deep', 'tall', 'toes'])

/** Whether something may be held to a count, after which it is back where it was. */
export const canBeHeld = (what: What): boolean =>
  what.kind === 'foot'
    ? HEIGHTS.has(what.action.primitive)
    : ['at', 'legs', 'trunk', 'shoulder', 'look', 'arms'].includes(what.kind)

/** All that is known of what something is. Each kind is only ever given its own. */
export const kindOf = (what: What): Kind<What> => KINDS[what.kind] as unknown as Kind<What>
