import type { DancerShape } from '../house/dancerLook'
import {
  cone,
  egg,
  type Field,
  joined,
  mix,
  smooth,
  type TubeRow,
  tube,
  type Vec,
  without,
} from './field'
import {
  ANKLE,
  acrossArm,
  acrossLeg,
  alongArm,
  alongLeg,
  FINGERS,
  type Finger,
  ofHand,
  REST,
} from './rest'

/** The body as fields of places at rest. The limbs are those of the right side. */
export interface Anatomy {
  /** All of it, as one skin. */
  readonly skin: Field
  readonly trunk: Field
  readonly neck: Field
  readonly arm: Field
  readonly hand: Field
  readonly palm: Field
  readonly leg: Field
  readonly foot: Field
  /** The leg with its foot and its knee. */
  readonly wholeLeg: Field
  readonly hair: Field
  /** What is outside this is a limb's. */
  readonly trunkTube: Field
}

/** What of a body is wider than the skin: trousers are legs with air in them. */
export interface Cut {
  readonly shape: DancerShape
  /** Metres of air round the shins. */
  readonly loose: number
}

type Wide = readonly [up: number, half: number, front: number, back: number]

/** Half widths and depths of the trunk by height (house figures). */
export const TRUNKS: Readonly<Record<DancerShape, readonly Wide[]>> = {
  woman: [
    [0.775, 0.05, 0.045, 0.055],
    [0.81, 0.115, 0.08, 0.09],
    [0.855, 0.163, 0.1, 0.112],
    [0.9, 0.176, 0.107, 0.117],
    [0.95, 0.168, 0.106, 0.104],
    [1.0, 0.147, 0.099, 0.085],
    [1.05, 0.121, 0.088, 0.07],
    [1.1, 0.107, 0.08, 0.066],
    [1.15, 0.11, 0.082, 0.073],
    [1.2, 0.121, 0.089, 0.083],
    [1.25, 0.131, 0.095, 0.092],
    [1.3, 0.138, 0.097, 0.099],
    [1.35, 0.141, 0.087, 0.1],
    [1.385, 0.13, 0.07, 0.092],
    [1.412, 0.098, 0.053, 0.077],
    [1.437, 0.063, 0.044, 0.06],
    [1.465, 0.043, 0.038, 0.048],
  ],
  man: [
    [0.775, 0.05, 0.05, 0.055],
    [0.81, 0.11, 0.085, 0.088],
    [0.855, 0.15, 0.1, 0.105],
    [0.9, 0.159, 0.106, 0.109],
    [0.95, 0.155, 0.107, 0.099],
    [1.0, 0.144, 0.105, 0.085],
    [1.05, 0.134, 0.099, 0.077],
    [1.1, 0.13, 0.095, 0.078],
    [1.15, 0.136, 0.097, 0.086],
    [1.2, 0.147, 0.103, 0.096],
    [1.25, 0.158, 0.109, 0.104],
    [1.3, 0.165, 0.11, 0.109],
    [1.35, 0.164, 0.098, 0.109],
    [1.385, 0.149, 0.078, 0.1],
    [1.412, 0.116, 0.06, 0.085],
    [1.437, 0.078, 0.052, 0.067],
    [1.465, 0.053, 0.046, 0.056],
  ],
}

/** Along the arm: to the outside, to the palm's side, to the front, to the back. */
export const ARM: readonly TubeRow[] = [
  [-0.05, 0.028, 0.03, 0.032, 0.034],
  [-0.02, 0.044, 0.042, 0.043, 0.044],
  [0.02, 0.047, 0.043, 0.046, 0.045],
  [0.06, 0.0445, 0.042, 0.044, 0.043],
  [0.11, 0.039, 0.039, 0.04, 0.04],
  [0.16, 0.035, 0.0355, 0.038, 0.0385],
  [0.21, 0.032, 0.0325, 0.034, 0.0355],
  [0.265, 0.0315, 0.032, 0.031, 0.0345],
  [0.3, 0.0335, 0.0325, 0.034, 0.0315],
  [0.335, 0.0335, 0.031, 0.0345, 0.031],
  [0.39, 0.029, 0.027, 0.031, 0.027],
  [0.44, 0.023, 0.021, 0.0265, 0.0235],
  [0.48, 0.0175, 0.017, 0.0235, 0.0225],
  [0.515, 0.016, 0.016, 0.025, 0.024],
  [0.535, 0.0145, 0.0155, 0.028, 0.0275],
]
/** Along the leg: to the inside, to the outside, to the back, to the front. */
export const LEG: readonly TubeRow[] = [
  [-0.06, 0.06, 0.08, 0.08, 0.076],
  [0, 0.083, 0.096, 0.093, 0.089],
  [0.05, 0.084, 0.094, 0.093, 0.091],
  [0.12, 0.081, 0.085, 0.087, 0.089],
  [0.2, 0.074, 0.075, 0.078, 0.0825],
  [0.28, 0.065, 0.0655, 0.068, 0.073],
  [0.35, 0.056, 0.0565, 0.0575, 0.061],
  [0.41, 0.05, 0.051, 0.0505, 0.0545],
  [0.45, 0.0475, 0.0485, 0.0525, 0.047],
  [0.5, 0.049, 0.0505, 0.063, 0.042],
  [0.54, 0.048, 0.051, 0.066, 0.041],
  [0.6, 0.042, 0.0445, 0.0565, 0.038],
  [0.66, 0.0345, 0.036, 0.043, 0.034],
  [0.72, 0.0285, 0.0295, 0.0335, 0.0295],
  [0.77, 0.026, 0.0275, 0.03, 0.0265],
  [0.81, 0.0285, 0.028, 0.032, 0.0275],
  [0.835, 0.0255, 0.0265, 0.0315, 0.0285],
]
/** Forward of the ankle: to the inside, to the outside, down, up, from a line 28 mm over the sole. */
const FOOT: readonly TubeRow[] = [
  [-0.06, 0.01, 0.01, 0.014, 0.012],
  [-0.05, 0.02, 0.02, 0.0245, 0.025],
  [-0.02, 0.0275, 0.0275, 0.027, 0.043],
  [0.02, 0.029, 0.031, 0.0275, 0.045],
  [0.06, 0.033, 0.0355, 0.025, 0.034],
  [0.1, 0.039, 0.0415, 0.0255, 0.02],
  [0.13, 0.041, 0.0405, 0.024, 0.008],
  [0.148, 0.036, 0.033, 0.021, 0.001],
  [0.158, 0.02, 0.02, 0.015, 0.002],
]
/** Along the hand from the wrist: to its back, to the palm's side, to the little finger, to the thumb. */
const PALM: readonly TubeRow[] = [
  [-0.012, 0.0145, 0.0145, 0.024, 0.0245],
  [0.02, 0.0145, 0.017, 0.028, 0.029],
  [0.05, 0.013, 0.0145, 0.0345, 0.034],
  [0.078, 0.0115, 0.012, 0.038, 0.036],
  [0.094, 0.0085, 0.0085, 0.034, 0.033],
]
/** The toes of a foot: aside, from, to, thick; metres, forward of the ankle. */
export const TOES = [
  [-0.026, 0.128, 0.183, 0.0125],
  [-0.0075, 0.135, 0.181, 0.0095],
  [0.0075, 0.134, 0.175, 0.009],
  [0.021, 0.13, 0.166, 0.0085],
  [0.0325, 0.124, 0.155, 0.008],
] as const

const thicker = (rows: readonly TubeRow[], by: (along: number) => number): readonly TubeRow[] =>
  rows.map(([along, ...radii]) => {
    const k = by(along)
    return [along, ...radii.map((radius) => radius * k)] as unknown as TubeRow
  })

/** A man's arm is fuller at the shoulder and the forearm. */
export const MANS_ARM = thicker(ARM, (along) => 1.14 + 0.1 * smooth(0.16, 0.02, along))
export const MANS_LEG = thicker(LEG, (along) => 1.03 + 0.06 * smooth(0.45, 0.6, along))

const onFinger = (h: Vec, { base, way, long, thick, name }: Finger): number => {
  const tip = long - thick * 0.8
  const [x, y, z] = h
  return cone(
    x,
    y,
    z,
    base,
    [base[0] + way[0] * tip, base[1] + way[1] * tip, base[2] + way[2] * tip],
    thick * (name === 'thumb' ? 1.1 : 1.06),
    thick * 0.78,
  )
}

/** The body of a shape, ready to be asked at any place. */
export function anatomyOf({ shape, loose }: Cut): Anatomy {
  const isWoman = shape === 'woman'
  const trunkAt = tube(
    TRUNKS[shape].map(([up, half, front, back]): TubeRow => [up, half, half, front, back]),
    2.25,
  )
  const armAt = tube(isWoman ? ARM : MANS_ARM)
  const legAt = tube(isWoman ? LEG : MANS_LEG)
  const footAt = tube(FOOT)
  const palmAt = tube(PALM)
  const trunkTube: Field = (x, y, z) => trunkAt(y, x, z)

  const trunk: Field = (x, y, z) => {
    const q = Math.abs(x)
    let f = trunkTube(x, y, z)
    f = isWoman
      ? joined(f, egg(q, y, z, [0.067, 1.272, -0.074], [0.058, 0.057, 0.05]), 0.03)
      : joined(f, egg(q, y, z, [0.075, 1.305, -0.07], [0.075, 0.055, 0.045]), 0.04)
    f = isWoman
      ? joined(f, egg(q, y, z, [0.072, 0.868, 0.062], [0.078, 0.078, 0.07]), 0.035)
      : joined(f, egg(q, y, z, [0.068, 0.872, 0.056], [0.07, 0.072, 0.064]), 0.035)
    // From the neck to the shoulder, the collar bone, the shoulder blade.
    const slope = isWoman ? 0.03 : 0.037
    f = joined(f, cone(q, y, z, [0.035, 1.47, 0.022], [0.145, 1.402, 0.012], slope, slope), 0.035)
    f = joined(f, cone(q, y, z, [0.012, 1.398, -0.05], [0.14, 1.418, -0.018], 0.008, 0.009), 0.016)
    f = joined(f, egg(q, y, z, [0.075, 1.315, 0.078], [0.05, 0.07, 0.03]), 0.03)
    // The furrow of the back, the line of the belly, the navel.
    f = without(f, cone(q, y, z, [0, 1.06, 0.083], [0, 1.3, 0.113], 0.006, 0.006), 0.022)
    const belly = isWoman ? 0 : 0.016
    f = without(
      f,
      cone(q, y, z, [0, 1.02, -0.109 - belly], [0, 1.17, -0.099 - belly], 0.006, 0.006),
      0.03,
    )
    return without(f, egg(x, y, z, [0, 1.036, -0.096 - belly], [0.0045, 0.0075, 0.012]), 0.008)
  }

  const broad = isWoman ? 1 : 1.16
  const neck: Field = (x, y, z) =>
    joined(
      cone(x, y, z, [0, 1.4, 0.016], [0, 1.55, 0.006], 0.047 * broad, 0.0415 * broad),
      cone(
        Math.abs(x),
        y,
        z,
        [0.014, 1.412, -0.042],
        [0.05, 1.545, 0.012],
        0.008 * broad,
        0.012 * broad,
      ),
      0.02,
    )

  const jaw = isWoman ? 1 : 1.09
  const head: Field = (x, y, z) => {
    const q = Math.abs(x)
    let f = egg(x, y, z, [0, 1.632, 0.012], [0.0715, 0.078, 0.0875])
    f = joined(f, egg(x, y, z, [0, 1.578, -0.024], [0.0535 * jaw, 0.079, 0.064]), 0.03)
    f = joined(f, egg(q, y, z, [0.027 * jaw, 1.537, -0.018], [0.026 * jaw, 0.024, 0.045]), 0.028)
    // Mouth and chin stand upright.
    f = joined(f, egg(x, y, z, [0, 1.552, -0.034], [0.042 * jaw, 0.056, 0.05]), 0.02)
    f = joined(f, egg(x, y, z, [0, 1.5095, -0.064], [0.019 * jaw, 0.0125 * jaw, 0.0165]), 0.022)
    f = joined(f, egg(q, y, z, [0.031, 1.563, -0.064], [0.024, 0.022, 0.018]), 0.03)
    f = joined(
      f,
      cone(q, y, z, [0.008, 1.612, -0.083], [0.04, 1.613, -0.07], 0.006 * jaw, 0.005 * jaw),
      0.018,
    )
    f = without(f, egg(q, y, z, [0.029, 1.595, -0.1035], [0.02, 0.012, 0.016]), 0.016)
    f = joined(f, egg(q, y, z, [0.029, 1.592, -0.0695], [0.0165, 0.0105, 0.0105]), 0.009)
    f = joined(f, cone(x, y, z, [0, 1.607, -0.085], [0, 1.567, -0.099], 0.006, 0.0075 * jaw), 0.012)
    f = joined(f, egg(q, y, z, [0.0075, 1.564, -0.0915], [0.0068, 0.0055, 0.008]), 0.007)
    f = joined(f, egg(x, y, z, [0, 1.5435, -0.0855], [0.0205, 0.0055, 0.0095]), 0.007)
    f = joined(f, egg(x, y, z, [0, 1.5335, -0.084], [0.0165, 0.0058, 0.0095]), 0.006)
    return joined(f, egg(q, y, z, [0.0725, 1.583, 0.008], [0.007, 0.027, 0.016]), 0.007)
  }

  /** A smooth cap behind the face; what hangs from it is not part of it. */
  const hair: Field = (x, y, z) => {
    const q = Math.abs(x)
    let f = egg(x, y, z, [0, 1.647, 0.024], [0.0815, 0.079, 0.0925])
    if (!isWoman)
      return without(
        joined(f, egg(q, y, z, [0.045, 1.6, 0.04], [0.034, 0.045, 0.05]), 0.03),
        egg(x, y, z, [0, 1.56, 0.1], [0.09, 0.045, 0.05]),
        0.02,
      )
    f = joined(f, egg(q, y, z, [0.055, 1.605, 0.022], [0.029, 0.05, 0.05]), 0.03)
    return joined(f, egg(x, y, z, [0, 1.59, 0.06], [0.055, 0.06, 0.04]), 0.03)
  }

  const arm: Field = (x, y, z) => armAt(alongArm(x, y), acrossArm(x, y), z - REST.shoulder[2])
  const palm: Field = (x, y, z) => {
    const h = ofHand(x, y, z)
    const thumb = FINGERS[4] as Finger
    return joined(
      palmAt(h[1], h[0], h[2]),
      cone(h[0], h[1], h[2], [0.005, 0.008, 0.014], thumb.base, 0.013, 0.0125),
      0.01,
    )
  }
  const hand: Field = (x, y, z) => {
    const h = ofHand(x, y, z)
    if (h[1] < -0.09) return 1
    let fingers = 1
    for (const one of FINGERS) fingers = Math.min(fingers, onFinger(h, one))
    return joined(palm(x, y, z), fingers, 0.009)
  }

  const leg: Field = (x, y, z) => {
    const along = alongLeg(x, y)
    const air = loose > 0 ? loose * smooth(0.02, 0.42, along) * smooth(0.79, 0.76, along) : 0
    return legAt(along, acrossLeg(x, y), -z) - air
  }
  const foot: Field = (x, y, z) => {
    const ahead = ANKLE[2] - z
    const aside = x - ANKLE[0]
    const up = y - 0.008
    if (up > 0.3) return 1
    let f = footAt(ahead, aside, up)
    f = joined(f, egg(aside, up, ahead, [0.004, 0.03, -0.02], [0.031, 0.035, 0.042]), 0.02)
    f = joined(f, egg(Math.abs(aside), up, ahead, [0.0255, 0.043, 0], [0.011, 0.014, 0.013]), 0.012)
    let toes = 1
    for (const [at, from, to, thick] of TOES)
      toes = Math.min(
        toes,
        cone(
          aside,
          up,
          ahead,
          [at * 0.92, -0.0125, from - 0.01],
          [at, -0.0165, to - thick],
          thick * 1.1,
          thick,
        ),
      )
    return joined(f, toes, 0.006)
  }
  const wholeLeg: Field = (x, y, z) => {
    const f = leg(x, y, z)
    if (y < 0.2) return joined(f, foot(x, y, z), loose > 0 ? 0.006 : 0.022)
    const knee = y < 0.6 && y > 0.3 && loose === 0
    return knee
      ? joined(f, egg(x, y, z, [ANKLE[0] - 0.012, 0.452, -0.042], [0.026, 0.034, 0.016]), 0.022)
      : f
  }

  const skin: Field = (x, y, z) => {
    const q = Math.abs(x)
    if (y > 1.5 && q < 0.2) return joined(neck(x, y, z), head(x, y, z), 0.013)
    let f = y > 0.6 && q < 0.4 ? trunk(x, y, z) : 1
    if (y > 1.3 && q < 0.25) f = joined(f, neck(x, y, z), 0.03)
    if (y > 1.44) f = joined(f, head(x, y, z), 0.013)
    if (y < 1.05) {
      const own = wholeLeg(q, y, z)
      const legs = q > 0.09 ? own : joined(own, wholeLeg(-q, y, z), 0.014)
      f = joined(f, legs, 0.04)
    }
    if (y > 0.85 && q > 0.05) {
      let limb = arm(q, y, z)
      if (q > 0.42) limb = joined(limb, hand(q, y, z), 0.014)
      // A lifted arm pulls no ridge in front of the armpit.
      f = joined(f, limb, mix(0.036, 0.045, smooth(1.3, 1.36, y)))
    }
    return f
  }
  return { skin, trunk, neck, arm, hand, palm, leg, foot, wholeLeg, hair, trunkTube }
}
