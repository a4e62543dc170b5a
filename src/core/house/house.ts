import { z } from 'zod'
import { ARM_PLACES, type CompassReach, type Palms } from '../body/places'
import { DancerLevel, USUAL_LEVEL } from '../combination/combination'
import { DancerLook, USUAL_LOOK } from './dancerLook'
import { OwnLayerings } from './layerings'
import { Units } from './lengths'
import { LIMIT_IDS, LIMITS, LimitId, PALM_WAYS } from './limits'

export const HOUSE_VERSION = 6

/** The dancer all places on the floor and of the arms are written for, in metres (model 4). */
export const MODEL_HEIGHT = 1.65

const Height = z.number().min(0.9).max(2.3)

/** How a studio works: its room and its class, its rules, and the limits it has changed. */
export const HouseRules = z
  .object({
    schemaVersion: z.literal(HOUSE_VERSION),
    /** Every turn keeps its direction on the other side, in all combinations. */
    keepTurns: z.boolean(),
    /** Metres; the dancers face along the depth. */
    room: z
      .object({ width: z.number().min(1).max(100), depth: z.number().min(1).max(100) })
      .readonly(),
    /** What lengths are told in. */
    units: Units,
    dancers: z.int().min(1).max(200),
    /** Every second row stands in the gaps of the one before. */
    staggered: z.boolean(),
    /** Metres. */
    heights: z.object({ shortest: Height, tallest: Height }).readonly(),
    /** For combinations that name no level. */
    level: DancerLevel,
    /** The dancer that is drawn: height in metres, how broad, 1 being usual, and what it looks like. */
    dancer: z
      .object({ height: Height, build: z.number().min(0.8).max(1.3), look: DancerLook })
      .readonly()
      .default({ height: MODEL_HEIGHT, build: 1, look: USUAL_LOOK }),
    /** Only the limits that were changed. */
    limits: z.partialRecord(LimitId, z.number()).readonly(),
    /** What she says of what goes with what; absent where the usual layerings are hers. */
    layerings: OwnLayerings.optional(),
  })
  .readonly()
export type HouseRules = z.infer<typeof HouseRules>

export const USUAL_RULES: HouseRules = {
  schemaVersion: HOUSE_VERSION,
  keepTurns: false,
  room: { width: 8, depth: 6 },
  units: 'metres',
  dancers: 12,
  staggered: false,
  heights: { shortest: MODEL_HEIGHT, tallest: MODEL_HEIGHT },
  level: USUAL_LEVEL,
  dancer: { height: MODEL_HEIGHT, build: 1, look: USUAL_LOOK },
  limits: {},
}

/** Where a foot lands: metres, and factors for small and large steps (model 4). */
export interface Landing {
  readonly together: number
  readonly side: number
  readonly ahead: number
  readonly ownSide: number
  readonly diagonal: number
  readonly crossAhead: number
  readonly crossPast: number
  readonly stance: number
  readonly jumpOut: number
  readonly hop: number
  readonly jump: number
  readonly middle: number
  readonly wrongSide: number
  readonly tooFar: number
  readonly small: number
  readonly large: number
}

/** House rules with every limit filled in: what the core computes by. */
export interface House extends Omit<HouseRules, 'limits'> {
  readonly limits: Readonly<Record<LimitId, number>>
  readonly landing: Landing
  readonly palms: Palms
  readonly compass: Readonly<Record<'hips' | 'ribs', CompassReach>>
}

/** Fills in what was not changed; a limit out of its range is taken to the nearest end. */
export function houseOf(rules: HouseRules): House {
  const limits = Object.fromEntries(
    LIMIT_IDS.map((id) => {
      const { usual, least, most } = LIMITS[id]
      // A zero below nothing is a zero.
      return [id, Math.min(most, Math.max(least, rules.limits[id] ?? usual)) || 0]
    }),
  ) as Record<LimitId, number>
  return {
    ...rules,
    limits,
    landing: landingIn(limits),
    palms: palmsIn(limits),
    compass: { hips: reachIn(limits, 'hips'), ribs: reachIn(limits, 'ribs') },
  }
}

type AllLimits = Readonly<Record<LimitId, number>>

const palmsIn = (limits: AllLimits): Palms =>
  Object.fromEntries(
    ARM_PLACES.map((place) => [place, PALM_WAYS.map((way) => limits[`palm.${place}.${way}`])]),
  ) as unknown as Palms

const reachIn = (limits: AllLimits, part: 'hips' | 'ribs'): CompassReach => ({
  side: limits[`compass.${part}.side`],
  forward: limits[`compass.${part}.forward`],
  back: limits[`compass.${part}.back`],
})

const landingIn = (limits: Readonly<Record<LimitId, number>>): Landing => ({
  together: limits['landing.together'],
  side: limits['landing.side'],
  ahead: limits['landing.ahead'],
  ownSide: limits['landing.ownSide'],
  diagonal: limits['landing.diagonal'],
  crossAhead: limits['landing.crossAhead'],
  crossPast: limits['landing.crossPast'],
  stance: limits['landing.stance'],
  jumpOut: limits['landing.jumpOut'],
  hop: limits['landing.hop'],
  jump: limits['landing.jump'],
  middle: limits['landing.middle'],
  wrongSide: limits['landing.wrongSide'],
  tooFar: limits['landing.tooFar'],
  small: limits['landing.small'],
  large: limits['landing.large'],
})

export const USUAL_HOUSE: House = houseOf(USUAL_RULES)

const forDance = new WeakMap<HouseRules, HouseRules>()

/** The rules a dance goes by: without what only proposals go by. The same rules give the same object. */
export function danceRules(rules: HouseRules): HouseRules {
  const { layerings, ...others } = rules
  if (!layerings) return rules
  const known = forDance.get(rules) ?? others
  forDance.set(rules, known)
  return known
}

/** Changes one limit; without a value it is the usual one again. */
export function withLimit(rules: HouseRules, id: LimitId, value: number | undefined): HouseRules {
  const { [id]: _, ...others } = rules.limits
  const same = value === undefined || value === LIMITS[id].usual
  return { ...rules, limits: same ? others : { ...others, [id]: value } }
}
