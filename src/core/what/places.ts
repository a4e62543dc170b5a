import type { HandState } from '../body/hands'
import type { Layer } from '../body/layers'
import {
  type ArmPlace,
  type Compass,
  type Gaze,
  isArmPlace,
  isCompass,
  isGaze,
  type LegPlace,
  mirrorCompass,
  mirrorGaze,
  type ShoulderPlace,
  type TrunkPlace,
} from '../body/places'
import { otherSide, SIDES, type Side } from '../body/side'
import type { Move } from '../moves/move'

/** Where hips, ribs, arms and gaze are (model 3). */
export interface Places {
  readonly hips: Compass
  readonly ribs: Compass
  readonly arms: Readonly<Record<Side, ArmPlace>>
  readonly gaze: Gaze
  readonly trunk: TrunkPlace
  readonly legs: Readonly<Record<Side, LegPlace>>
  readonly shoulders: Readonly<Record<Side, ShoulderPlace>>
  readonly hands: Readonly<Record<Side, HandState>>
  /** Parts that may be anywhere, after they were danced as one likes: nothing is expected of them. */
  readonly free?: readonly PlacePart[]
}

/** A part that is somewhere. */
export type PlacePart = Exclude<keyof Places, 'free'>

export const ANY_PLACES: readonly PlacePart[] = [
  'hips',
  'ribs',
  'arms',
  'gaze',
  'trunk',
  'legs',
  'shoulders',
  'hands',
]

/** What the table calls the places of the head, and what a look calls them. */
function gazeOf(place: string): Gaze | undefined {
  const gaze = place.replace(/^shoulder-(?=[RL]$)/, 'over-')
  return isGaze(gaze) ? gaze : undefined
}

/** The places a table cell names, turned to the side that is danced: `R`, `low`, `R:crown+L:second`. */
function placesNamed(cell: string, layer: Layer, left: boolean): Partial<Places> {
  const there = isCompass(cell) ? (left ? mirrorCompass(cell) : cell) : undefined
  if (layer === 'hips') return there ? { hips: there } : {}
  if (layer === 'torso') return there ? { ribs: there } : {}
  if (layer === 'head') {
    const gaze = gazeOf(cell)
    return gaze ? { gaze: left ? mirrorGaze(gaze) : gaze } : {}
  }
  if (layer !== 'arms') return {}
  const arms: Partial<Record<Side, ArmPlace>> = {}
  for (const part of cell.split('+')) {
    const [, arm, place] = /^(?:([RL]):)?(.+)$/.exec(part) ?? []
    if (!isArmPlace(place)) continue
    for (const side of SIDES) if (!arm || arm === side) arms[left ? otherSide[side] : side] = place
  }
  return { arms: arms as Places['arms'] }
}
interface MoveEnds {
  readonly from: Partial<Places>
  readonly to: Partial<Places>
}

const endsOfMoves = new WeakMap<Move, Readonly<Record<Side, MoveEnds>>>()

/** Where a move starts and ends on a side, read once from its row of the table. */
export function endsOf(move: Move, side: Side): MoveEnds {
  let known = endsOfMoves.get(move)
  if (!known) {
    const on = (left: boolean): MoveEnds => ({
      from: placesNamed(move.from, move.layer, left),
      to: placesNamed(move.to, move.layer, left),
    })
    known = { R: on(false), L: on(true) }
    endsOfMoves.set(move, known)
  }
  return known[side]
}
