import { z } from 'zod'
import { negated, otherSide, type Side, sideAtEnd } from './side'
import { oneOf } from './words'

/** Words with their side at the end change it for the other; those without one stay. */
function across<W extends string>(words: readonly W[]): (word: W) => W {
  const other = new Map(
    words.map((word) => {
      const side = sideAtEnd(word)
      return [word, side ? (`${word.slice(0, -1)}${otherSide[side]}` as W) : word]
    }),
  )
  return (word) => other.get(word) ?? word
}

export const COMPASS = ['C', 'R', 'L', 'F', 'B', 'FR', 'FL', 'BR', 'BL'] as const
/** Where hips or ribs are over the feet. */
export const Compass = z.enum(COMPASS)
export type Compass = z.infer<typeof Compass>
export const isCompass = oneOf(COMPASS)

/** R and L change places, front and back stay. */
export const mirrorCompass = across(COMPASS)

export const compassWord: Readonly<Record<Compass, string>> = {
  C: 'centre',
  R: 'right',
  L: 'left',
  F: 'front',
  B: 'back',
  FR: 'front right',
  FL: 'front left',
  BR: 'back right',
  BL: 'back left',
}

/** To the dancer's right and forward, in metres. */
export interface FloorPoint {
  readonly right: number
  readonly forward: number
}

const DIAGONAL = Math.SQRT1_2
const unit: Readonly<Record<Compass, readonly [number, number]>> = {
  C: [0, 0],
  R: [1, 0],
  L: [-1, 0],
  F: [0, 1],
  B: [0, -1],
  FR: [DIAGONAL, DIAGONAL],
  FL: [-DIAGONAL, DIAGONAL],
  BR: [DIAGONAL, -DIAGONAL],
  BL: [-DIAGONAL, -DIAGONAL],
}

const RIM: readonly Compass[] = ['F', 'FR', 'R', 'BR', 'B', 'BL', 'L', 'FL']

/** How many steps of the compass lie between two places: along the rim, or through C if that is shorter. */
export function compassSteps(from: Compass, to: Compass): number {
  if (from === to) return 0
  if (from === 'C' || to === 'C') return 1
  const apart = Math.abs(RIM.indexOf(from) - RIM.indexOf(to))
  return Math.min(apart, RIM.length - apart, 2)
}

/** How far a part goes to the side, forward and back, in centimetres. */
export interface CompassReach {
  readonly side: number
  readonly forward: number
  readonly back: number
}

/** House figures of model 12. */
export const REACH_CM: Readonly<Record<'hips' | 'ribs', CompassReach>> = {
  hips: { side: 9, forward: 8, back: 9 },
  ribs: { side: 6, forward: 5, back: 4 },
}

/** How far hips or ribs are from the centre at a place of the compass, in metres (model 12). */
export function compassOffset(
  part: keyof typeof REACH_CM,
  place: Compass,
  reaches = REACH_CM,
): FloorPoint {
  const [right, forward] = unit[place]
  const reach = reaches[part]
  return {
    right: (right * reach.side) / 100,
    forward: (forward * (forward < 0 ? reach.back : reach.forward)) / 100,
  }
}

/** Palm of the right hand from the chest centre, cm right / up / front: house figures of model 5. */
export const PALM_CM = {
  low: [24, -44, 5],
  'low-v': [48, -36, 10],
  'demi-second': [55, -22, 12],
  hips: [20, -27, 3],
  second: [70, 6, 12],
  level: [6, 2, 28],
  front: [17, 5, 55],
  'front-low': [15, -28, 42],
  'front-high': [18, 42, 42],
  'high-v': [48, 58, 12],
  crown: [10, 66, 12],
  'diagonal-up': [52, 50, 12],
  'diagonal-down': [50, -32, 12],
  prayer: [2, 0, 20],
  'cross-chest': [-12, 6, 14],
  'cross-low': [-12, -30, 20],
  temple: [14, 34, 12],
  brow: [10, 38, 18],
  cheek: [13, 27, 14],
  ear: [13, 30, 6],
  'behind-head': [8, 36, -10],
  'behind-back': [-5, -26, -16],
  'shoulder-opposite': [-15, 14, 12],
  lips: [4, 25, 18],
  eyes: [6, 34, 18],
  heart: [-4, 6, 13],
  waist: [12, -16, 14],
  thigh: [20, -44, 14],
  knee: [20, -58, 25],
  floor: [15, -80, 35],
  'head-top': [2, 50, 0],
  'low-middle': [4, -40, 22],
  across: [-35, 6, 38],
  corner: [45, 6, 40],
  'corner-across': [-25, 6, 45],
} as const satisfies Record<string, readonly [number, number, number]>

export const ARM_PLACES = Object.keys(PALM_CM) as [
  keyof typeof PALM_CM,
  ...(keyof typeof PALM_CM)[],
]
/** A named place of one arm; the same word means the mirrored place on the other arm. */
export const ArmPlace = z.enum(ARM_PLACES)
export type ArmPlace = z.infer<typeof ArmPlace>
export const isArmPlace = oneOf(ARM_PLACES)

/** Right, up and forward of the chest centre, in metres. */
export interface PalmPoint {
  readonly right: number
  readonly up: number
  readonly forward: number
}

/** Centimetres right, up and forward of the chest centre for the right palm, by place. */
export type Palms = Readonly<Record<ArmPlace, readonly [number, number, number]>>

/** Where the palm of an arm is at a named place (model 5). */
export function palmAt(side: Side, place: ArmPlace, palms: Palms = PALM_CM): PalmPoint {
  const [right, up, forward] = palms[place]
  return {
    right: (side === 'R' ? right : negated(right)) / 100,
    up: up / 100,
    forward: forward / 100,
  }
}

/** The way an arm takes between two places. */
export const Via = z.enum(['side', 'front', 'overhead', 'midline'])
export type Via = z.infer<typeof Via>

/** The place each way leads through (model 5). */
export const viaPlace: Readonly<Record<Via, ArmPlace>> = {
  side: 'second',
  front: 'front',
  overhead: 'crown',
  midline: 'prayer',
}

const GAZES = [
  'front',
  'R',
  'L',
  'up',
  'down',
  'over-R',
  'over-L',
  'hand-R',
  'hand-L',
  'tilt-R',
  'tilt-L',
  'corner-R',
  'corner-L',
  'back-R',
  'back-L',
  'down-R',
  'down-L',
  'hand',
  'audience',
  'partner',
] as const
/** Where the head looks, or how it is held. */
export const Gaze = z.enum(GAZES)
export type Gaze = z.infer<typeof Gaze>
export const isGaze = oneOf(GAZES)

export const mirrorGaze = across(GAZES)

/** Where a partner is, seen by who faces the front of the room at the start. */
export const PartnerPlace = z.enum(['R', 'L', 'front', 'behind'])
export type PartnerPlace = z.infer<typeof PartnerPlace>

export const mirrorPartner = (place: PartnerPlace): PartnerPlace =>
  place === 'R' ? 'L' : place === 'L' ? 'R' : place

/** Degrees to the right that a partner stands at. */
export const PARTNER_DEGREES: Readonly<Record<PartnerPlace, number>> = {
  front: 0,
  R: 90,
  L: -90,
  behind: 180,
}

/** How the head is held, in degrees: right + as seen by the dancer, down +, towards the right shoulder +. */
export interface HeadAngles {
  readonly turn: number
  readonly nod: number
  readonly tilt: number
}

/** The head at each place it looks to: about 60 to a side, 80 over a shoulder (moves-notes). */
export const GAZE_ANGLES: Readonly<Record<Gaze, HeadAngles>> = {
  front: { turn: 0, nod: 0, tilt: 0 },
  R: { turn: 60, nod: 0, tilt: 0 },
  L: { turn: -60, nod: 0, tilt: 0 },
  up: { turn: 0, nod: -25, tilt: 0 },
  down: { turn: 0, nod: 30, tilt: 0 },
  'over-R': { turn: 80, nod: 0, tilt: 0 },
  'over-L': { turn: -80, nod: 0, tilt: 0 },
  'hand-R': { turn: 45, nod: 5, tilt: 0 },
  'hand-L': { turn: -45, nod: 5, tilt: 0 },
  'tilt-R': { turn: 0, nod: 0, tilt: 18 },
  'tilt-L': { turn: 0, nod: 0, tilt: -18 },
  'corner-R': { turn: 45, nod: 0, tilt: 0 },
  'corner-L': { turn: -45, nod: 0, tilt: 0 },
  'back-R': { turn: 85, nod: 5, tilt: 0 },
  'back-L': { turn: -85, nod: 5, tilt: 0 },
  'down-R': { turn: 20, nod: 32, tilt: 0 },
  'down-L': { turn: -20, nod: 32, tilt: 0 },
  // Where these two are hangs on the arms and on the facing: as they stand here where neither is known.
  hand: { turn: 0, nod: 5, tilt: 0 },
  audience: { turn: 0, nod: 0, tilt: 0 },
  partner: { turn: 0, nod: 0, tilt: 0 },
}

const TRUNK_PLACES = [
  'upright',
  'forward',
  'back',
  'arch',
  'round',
  'twist-R',
  'twist-L',
  'tip-R',
  'tip-L',
] as const
/** How the trunk is held over the hips. */
export const TrunkPlace = z.enum(TRUNK_PLACES)
export type TrunkPlace = z.infer<typeof TrunkPlace>

export const mirrorTrunk = across(TRUNK_PLACES)

export const trunkName: Readonly<Record<TrunkPlace, string>> = {
  upright: 'body up again',
  forward: 'body forward',
  back: 'body back',
  arch: 'back arched',
  round: 'back round',
  'twist-R': 'body twisted right',
  'twist-L': 'body twisted left',
  'tip-R': 'body tipped right',
  'tip-L': 'body tipped left',
}

/** How a leg is turned at the hip. */
export const LegPlace = z.enum(['home', 'in', 'out'])
export type LegPlace = z.infer<typeof LegPlace>

/** So far a leg is turned in or out, in degrees (h). */
export const LEG_TURN = 35

/** Where a shoulder is held. */
export const ShoulderPlace = z.enum(['level', 'back', 'forward', 'up', 'down'])
export type ShoulderPlace = z.infer<typeof ShoulderPlace>

export const shoulderName: Readonly<Record<ShoulderPlace, string>> = {
  level: 'level again',
  back: 'back',
  forward: 'forward',
  up: 'up',
  down: 'down',
}

/** How high the body is carried, from a deep bend to the toes. */
export const Level = z.enum(['deep', 'low', 'soft', 'tall', 'toes'])
export type Level = z.infer<typeof Level>
