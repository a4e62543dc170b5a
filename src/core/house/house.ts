import { z } from 'zod'
import { ArmPlace, type CompassReach, type Palms } from '../body/places'
import { DancerLevel, USUAL_LEVEL } from '../combination/combination'
import { Units } from './lengths'
import { FIGURES, FigureId, PALM_WAYS } from './limits'

export const HOUSE_VERSION = 2

/** The dancer all places on the floor and of the arms are written for, in metres (model 4). */
export const MODEL_HEIGHT = 1.65

const Height = z.number().min(0.9).max(2.3)

/** How a studio works: its room and its class, its rules, and the figures it has changed. */
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
    /** The dancing figure: its height in metres, and how broad it is, 1 being usual. */
    figure: z
      .object({ height: Height, build: z.number().min(0.8).max(1.3) })
      .readonly()
      .default({ height: MODEL_HEIGHT, build: 1 }),
    /** Only the figures that were changed. */
    figures: z.partialRecord(FigureId, z.number()).readonly(),
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
  figure: { height: MODEL_HEIGHT, build: 1 },
  figures: {},
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
  readonly middle: number
  readonly wrongSide: number
  readonly tooFar: number
  readonly small: number
  readonly large: number
}

/** House rules with every figure filled in: what the core computes by. */
export interface House extends Omit<HouseRules, 'figures'> {
  readonly figures: Readonly<Record<FigureId, number>>
  readonly landing: Landing
  readonly palms: Palms
  readonly compass: Readonly<Record<'hips' | 'ribs', CompassReach>>
}

/** Fills in what was not changed; a figure out of its range is taken to the nearest end. */
export function settled(rules: HouseRules): House {
  const figures = Object.fromEntries(
    FigureId.options.map((id) => {
      const { usual, least, most } = FIGURES[id]
      return [id, Math.min(most, Math.max(least, rules.figures[id] ?? usual))]
    }),
  ) as Record<FigureId, number>
  return {
    ...rules,
    figures,
    landing: landingIn(figures),
    palms: palmsIn(figures),
    compass: { hips: reachIn(figures, 'hips'), ribs: reachIn(figures, 'ribs') },
  }
}

type AllFigures = Readonly<Record<FigureId, number>>

const palmsIn = (figures: AllFigures): Palms =>
  Object.fromEntries(
    ArmPlace.options.map((place) => [
      place,
      PALM_WAYS.map((way) => figures[`palm.${place}.${way}`]),
    ]),
  ) as unknown as Palms

const reachIn = (figures: AllFigures, part: 'hips' | 'ribs'): CompassReach => ({
  side: figures[`compass.${part}.side`],
  forward: figures[`compass.${part}.forward`],
  back: figures[`compass.${part}.back`],
})

const landingIn = (figures: Readonly<Record<FigureId, number>>): Landing => ({
  together: figures['landing.together'],
  side: figures['landing.side'],
  ahead: figures['landing.ahead'],
  ownSide: figures['landing.ownSide'],
  diagonal: figures['landing.diagonal'],
  crossAhead: figures['landing.crossAhead'],
  crossPast: figures['landing.crossPast'],
  stance: figures['landing.stance'],
  jumpOut: figures['landing.jumpOut'],
  middle: figures['landing.middle'],
  wrongSide: figures['landing.wrongSide'],
  tooFar: figures['landing.tooFar'],
  small: figures['landing.small'],
  large: figures['landing.large'],
})

export const USUAL_HOUSE: House = settled(USUAL_RULES)

/** Changes one figure; without a value it is the usual one again. */
export function withFigure(rules: HouseRules, id: FigureId, value: number | undefined): HouseRules {
  const { [id]: _, ...others } = rules.figures
  const same = value === undefined || value === FIGURES[id].usual
  return { ...rules, figures: same ? others : { ...others, [id]: value } }
}
