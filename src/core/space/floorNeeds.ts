import type { House } from '../house/house'
import type { Simulation } from '../simulate/simulate'
import {
  type Area,
  type ArmReach,
  areaOf,
  areaOfOne,
  armReach,
  classFit,
  type Round,
  roundsOf,
  scaledArea,
  sizeOf,
  stepSizeThatFits,
} from './space'

interface Size {
  readonly width: number
  readonly depth: number
}

/** The floor a combination takes, by the tallest dancer, and how a class fits into the room with it. */
export interface FloorNeeds {
  /** One round on the lead side, in metres. */
  readonly round: Size
  /** The rounds asked for, one after another. */
  readonly shown: { readonly rounds: readonly Round[]; readonly area: Area; readonly size: Size }
  readonly arms: ArmReach
  /** Dancers that have room to dance all of it. */
  readonly fit: number
  /** The share of the step size at which all fit; absent where none does. */
  readonly steps: number | undefined
}

/** What a danced combination needs of the floor, for so many rounds. */
export function floorNeeds(
  danced: { readonly lead: Simulation; readonly other: Simulation; readonly house: House },
  rounds: number,
  switching: boolean,
): FloorNeeds {
  const { lead, other, house } = danced
  const shown = roundsOf(lead, other, rounds, switching)
  const area = areaOf(shown)
  const one = scaledArea(areaOfOne(lead), house)
  return {
    round: sizeOf(one),
    shown: { rounds: shown, area, size: sizeOf(scaledArea(area, house)) },
    arms: armReach(lead),
    fit: classFit(one, house).fit,
    steps: stepSizeThatFits(one, house),
  }
}
