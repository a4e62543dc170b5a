import type { Primitive } from '../body/feet'
import { otherSide, type Side } from '../body/side'
import type { BodyState } from './state'

/**
 * The foot meant when none is written: the free one; on both feet the lead foot (model 4). After a
 * press the weight comes home onto the foot that carries.
 */
export function footMeant(
  { weight, pressed }: Pick<BodyState, 'weight' | 'pressed'>,
  lead: Side,
  mirrored: boolean,
  primitive?: Primitive,
): Side {
  if (primitive === 'recover' && pressed) return otherSide[pressed]
  if (weight === 'both') return mirrored ? otherSide[lead] : lead
  return otherSide[weight]
}
