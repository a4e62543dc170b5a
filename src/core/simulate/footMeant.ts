import { otherSide, type Side, type Weight } from '../body/side'

/** The foot meant when none is written: the free one; on both feet the lead foot (model 4). */
export function footMeant(weight: Weight, lead: Side, mirrored: boolean): Side {
  if (weight === 'both') return mirrored ? otherSide[lead] : lead
  return otherSide[weight]
}
